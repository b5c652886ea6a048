"use client";
import { Tick } from "../fields/tick";

export type ShiftText = { readonly key: number; readonly name: string; readonly from: string };
export const weekdays = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];

/** Shifts by name and start, and the days that are worked. */
export function ShiftRows({
  id,
  shifts,
  setShifts,
  workDays,
  setWorkDays,
}: {
  id: string;
  shifts: readonly ShiftText[];
  setShifts: (shifts: readonly ShiftText[]) => void;
  workDays: readonly number[];
  setWorkDays: (days: readonly number[]) => void;
}) {
  const put = (key: number, over: Partial<ShiftText>) =>
    setShifts(shifts.map((s) => (s.key === key ? { ...s, ...over } : s)));
  return (
    <>
      {shifts.map((s, i) => (
        <div key={s.key} className="grid grid-cols-[minmax(0,1fr)_130px_80px] items-end gap-3">
          <div className="field">
            <label htmlFor={`${id}-shift-${s.key}`}>Shift {i + 1}</label>
            <input
              id={`${id}-shift-${s.key}`}
              className="input"
              required
              maxLength={30}
              value={s.name}
              onChange={(e) => put(s.key, { name: e.target.value })}
            />
          </div>
          <div className="field">
            <label htmlFor={`${id}-from-${s.key}`}>begins at</label>
            <input
              id={`${id}-from-${s.key}`}
              type="time"
              className="input num"
              required
              value={s.from}
              onChange={(e) => put(s.key, { from: e.target.value })}
            />
          </div>
          {shifts.length > 1 && (
            <button
              type="button"
              className="link min-h-11 text-left"
              onClick={() => setShifts(shifts.filter((x) => x.key !== s.key))}
            >
              take out
            </button>
          )}
        </div>
      ))}
      <p className="m-0">
        <button
          type="button"
          className="btn"
          onClick={() =>
            setShifts([...shifts, { key: Math.max(0, ...shifts.map((s) => s.key)) + 1, name: "", from: "15:00" }])
          }
        >
          One more shift
        </button>
      </p>
      <fieldset className="m-0 border-0 p-0">
        <legend className="small soft mb-1">Works on</legend>
        <span className="flex flex-wrap gap-x-5">
          {weekdays.map((day, i) => (
            <label key={day} className="flex min-h-11 items-center gap-2">
              <Tick
                checked={workDays.includes(i + 1)}
                onChange={(on) => setWorkDays(on ? [...workDays, i + 1] : workDays.filter((d) => d !== i + 1))}
              />{" "}
              {day}
            </label>
          ))}
        </span>
      </fieldset>
    </>
  );
}
