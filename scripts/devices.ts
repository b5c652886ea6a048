// Stand-ins for instruments, in a process of their own: each speaks plain text lines over a stream on loopback, as a
// serial or network device would. First line sent by the client names the device.
import { createServer } from "node:net";
import { seededRandom, simulateBake } from "../src/core/simulated-line";

const port = Number(process.env.DEVICE_PORT ?? 4710);
let seed = 7;
createServer((socket) => {
  socket.setEncoding("utf8");
  socket.on("error", () => {});
  socket.once("data", (line) => {
    const [device, arg] = String(line).trim().split(/\s+/);
    const random = seededRandom(seed++);
    if (device === "film-gauge") {
      // A stream of lines, one each time the probe is lifted. `slip` changes its unit in the middle, `cut` goes silent,
      // `quick` is a practised hand.
      const mode = arg ?? "";
      let n = 0;
      const timer = setInterval(
        () => {
          n++;
          const um = Math.max(5, random.normal(Number(mode) || 74, 4));
          if (mode === "cut" && n > 5) return socket.destroy();
          if (mode === "slip" && n > 6) socket.write(`${(um / 25.4).toFixed(2)}\r\n`);
          else if (mode === "slip") socket.write(`${um.toFixed(1)}\r\n`);
          else socket.write(`${um.toFixed(1)} um\r\n`);
        },
        mode === "quick" || mode === "slip" || mode === "cut" ? 60 : 450,
      );
      socket.on("close", () => clearInterval(timer));
    } else if (device === "film-gauge-batch") {
      // What it has kept since it was last emptied, each with its counter, then it closes.
      const count = Math.min(5000, Number(arg) || 12);
      for (let n = 1; n <= count; n++) socket.write(`#${n} ${Math.max(5, random.normal(74, 4)).toFixed(1)} um\r\n`);
      socket.end();
    } else if (device === "film-gauge-keys") {
      // What a gauge that works as a keyboard would type: bare numbers, each with Enter.
      const count = Math.min(500, Number(arg) || 12);
      for (let n = 1; n <= count; n++) socket.write(`${Math.max(5, random.normal(74, 4)).toFixed(0)}\r`);
      socket.end();
    } else if (device === "gloss-meter") {
      // Three readings at one angle; the angle and the level it is held over may be named.
      const [, angle, level] = String(line).trim().split(/\s+/);
      const lines = [0, 1, 2].map(
        () => `${Number(angle) || 60} ${Math.max(0, random.normal(Number(level) || 62, 0.8)).toFixed(1)} GU`,
      );
      let n = 0;
      const timer = setInterval(() => {
        socket.write(`${lines[n++]}\r\n`);
        if (n === lines.length) socket.end();
      }, 300);
      socket.on("close", () => clearInterval(timer));
    } else if (device === "colour-meter") {
      // Held over a piece whose standard is named: near it, as a good film is.
      const [l = 41.2, a = -1.03, b = -12.11] = String(line).trim().split(/\s+/).slice(1).map(Number);
      const near = (x: number) => random.normal(x, 0.18).toFixed(2);
      socket.end(`L ${near(l)} a ${near(a)} b ${near(b)}\r\n`);
    } else if (device === "pull-off-tester") {
      socket.end(`d 20 mm F ${Math.max(100, random.normal(2700, 180)).toFixed(0)} N\r\n`);
    } else if (device === "oven-recorder") {
      const channels = simulateBake(random, {
        setPointC: 205,
        pieces: [
          { channel: "Thin", tauS: 210 },
          { channel: "Thick", tauS: 340 },
        ],
        doorToPullS: 2000,
        intervalS: 20,
        coolS: 300,
        startC: 21,
      });
      socket.write(`Elapsed,${channels.map((c) => `${c.name} (C)`).join(",")}\r\n`);
      const time = channels[0]?.trace.timeS ?? [];
      for (const [i, s] of time.entries())
        socket.write(
          `${[Math.floor(s / 3600), Math.floor(s / 60) % 60, s % 60].map((n) => String(n).padStart(2, "0")).join(":")},${channels.map((c) => c.trace.tempC[i]).join(",")}\r\n`,
        );
      socket.end();
    } else if (device === "oven-recorder-live") {
      // The recorder while the load is in: its speed against the clock, the set point, then rack-τ for each probe.
      const [, speedText, setText, ...probes] = String(line).trim().split(/\s+/);
      const intervalS = 10;
      const channels = simulateBake(random, {
        setPointC: Number(setText) || 205,
        pieces: probes.slice(0, 5).map((p, i) => {
          const [name, tau] = p.split("-");
          return { channel: name?.replaceAll("_", " ") || `Probe ${i + 1}`, tauS: Math.max(20, Number(tau) || 300) };
        }),
        doorToPullS: 8 * 3600,
        intervalS,
        coolS: 0,
        startC: 21,
      });
      socket.write(`s,${channels.map((c) => c.name).join(",")}\r\n`);
      let at = 0;
      const timer = setInterval(
        () => {
          const s = channels[0]?.trace.timeS[at];
          if (s === undefined) return socket.end();
          socket.write(`${s},${channels.map((c) => c.trace.tempC[at]).join(",")}\r\n`);
          at++;
        },
        (1000 * intervalS) / Math.min(600, Math.max(1, Number(speedText) || 1)),
      );
      socket.on("close", () => clearInterval(timer));
    } else if (device === "bath-meter") {
      // A pH and conductivity meter held into the bath that is named: what it would read there.
      const bath = String(line).trim().slice("bath-meter ".length);
      const rinse = /4|rinse/i.test(bath);
      const ph = random.normal(rinse ? 6.9 : 5.3, 0.04).toFixed(2);
      const microSiemens = Math.max(1, random.normal(rinse ? 66 : 1900, rinse ? 4 : 60)).toFixed(0);
      socket.end(`pH ${ph}  ${random.normal(rinse ? 24 : 47, 0.6).toFixed(1)} C  ${microSiemens} uS/cm 25C\r\n`);
    } else socket.end("unknown device\r\n");
  });
}).listen(port, "127.0.0.1");
