import { connect } from "node:net";
import { personWith } from "@/server/sign-in/person";

export const dynamic = "force-dynamic";
/** At the bench: an inspector’s. */
const benchDevices = ["gloss-meter", "colour-meter", "pull-off-tester"];
const devices = new Set([
  "film-gauge",
  "film-gauge-batch",
  "film-gauge-keys",
  "oven-recorder",
  "oven-recorder-live",
  "bath-meter",
  ...benchDevices,
]);

/** Streams a gauge's lines to the page as server-sent events; a recorder or a meter answers once. The gauge speaks plain text lines over TCP, as a serial device behind a converter does. */
export async function GET(request: Request, { params }: { params: Promise<{ device: string }> }): Promise<Response> {
  const { device } = await params;
  const who = await personWith(
    device.startsWith("film-gauge") || benchDevices.includes(device) ? "inspect" : "log-line",
  );
  if (!who.ok) return Response.json(who.refusal, { status: who.refusal.kind === "signed-out" ? 401 : 403 });
  if (!devices.has(device)) return Response.json({ kind: "unknown-device", device }, { status: 404 });
  // Only plain words go to the instrument.
  const word = (name: string) =>
    (new URL(request.url).searchParams.get(name) ?? "").replace(/[^\w .-]/g, "").slice(0, 120);
  if (device === "oven-recorder") return wholeText(device);
  if (device === "film-gauge-batch" || device === "film-gauge-keys") return wholeText(`${device} ${word("mode")}`);
  if (device === "bath-meter") {
    return wholeText(`${device} ${word("bath")}`);
  }
  if (device === "colour-meter" || device === "pull-off-tester") return wholeText(`${device} ${word("mode")}`);
  const socket = connect({
    host: process.env.DEVICE_HOST ?? "127.0.0.1",
    port: Number(process.env.DEVICE_PORT ?? 4710),
  });
  const encoder = new TextEncoder();
  const stream = new ReadableStream({
    start(controller) {
      let rest = "";
      let closed = false;
      const close = () => {
        if (closed) return;
        closed = true;
        socket.destroy();
        controller.close();
      };
      socket.setEncoding("utf8");
      socket.on("connect", () => socket.write(`${device} ${word("mode")}\n`));
      socket.on("data", (chunk) => {
        const lines = (rest + String(chunk)).split(/\r?\n/);
        rest = lines.pop() ?? "";
        for (const line of lines)
          if (!closed && line) controller.enqueue(encoder.encode(`data: ${line.replace(/[\r\n]/g, " ")}\n\n`));
      });
      socket.on("error", close);
      socket.on("close", close);
      request.signal.addEventListener("abort", close);
    },
    cancel: () => void socket.destroy(),
  });
  return new Response(stream, { headers: { "content-type": "text/event-stream", "cache-control": "no-store" } });
}

/** A recorder sends its whole trace and closes: taken as text, to be read and shown like a file. */
function wholeText(device: string): Promise<Response> {
  return new Promise((resolve) => {
    const socket = connect({
      host: process.env.DEVICE_HOST ?? "127.0.0.1",
      port: Number(process.env.DEVICE_PORT ?? 4710),
    });
    let text = "";
    socket.setEncoding("utf8");
    socket.setTimeout(8000, () => socket.destroy(new Error("no answer")));
    socket.on("connect", () => socket.write(`${device}\n`));
    socket.on("data", (chunk) => {
      text += String(chunk);
      if (text.length > 10 * 1024 * 1024) socket.destroy(new Error("too long"));
    });
    socket.on("error", () => resolve(Response.json({ kind: "no-recorder" }, { status: 502 })));
    socket.on("end", () =>
      resolve(
        new Response(text, { headers: { "content-type": "text/plain; charset=utf-8", "cache-control": "no-store" } }),
      ),
    );
  });
}
