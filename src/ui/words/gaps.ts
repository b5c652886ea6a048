const where: Readonly<Record<string, string>> = {
  job: "Say it of the part or the job, under Plan, so that it is known of every rack.",
  rack: "Tick the step as it is done, under Prepare or Coat, so that next time it is known.",
  prep: "Measure and record it under Prepare before powder, so that next time it is known.",
  bath: "Log the bath on its round, so that the value at the minute of passage is known.",
  powder: "Receive the lot with its date and keep the store’s temperature.",
  booth: "Record it with the coat or at the pre-flight, so that next time it is known.",
  thickness: "Read the film at this place, so that next time it is known.",
  bake: "Put a probe on the piece and keep the trace, so that next time it is known.",
  test: "Make the test on a scrap or panel of the load, and record it.",
  trace: "Say of more racks whether they show it, so that a pattern can be told.",
  field: "Capture it on the round, zone by zone.",
};
/** What to record so that next time a finding is known. */
export const gapSaid = (finding: string, from: string | null): string =>
  finding === "air-wet"
    ? "Read the dew point of the compressed air once a shift."
    : (where[from ?? ""] ?? "Record it when it is seen, so that next time it is known.");
