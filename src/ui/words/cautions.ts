/** The usual cautions of each step, where the hand is. Data sheets, local codes and licensed practice come first. */
export const cautions: Record<string, string> = {
  shift: "Data sheets, local codes and licensed practice come before anything shown here.",
  plan: "Lifting and hanging: rated hooks, known weights, mind tipping. Rubber and seals out before any oven.",
  prepare:
    "Blasting: dust, silica and old lead paint; supplied air and hearing protection. Solvents: no flame, gloves, oily rags in a closed bin. Never burn off rubber or old paint in the open.",
  pretreat:
    "Acids and caustics: gloves, goggles; acid into water. Nitrite with acid gives poisonous gas. Spills and effluent by permit.",
  coat: "Powder in air can explode: earth people and parts, keep booth draught on, no ignition source. Respirator; hardeners sensitise. High voltage at the gun.",
  cure: "Hot parts, doors and fumes: gloves, extraction on. Burners, ventilation and interlocks by licensed people; no open flame without rated ventilation. Never an oven that cooks food. Extinguisher at hand, nobody alone. The data sheet comes first.",
  test: "Read film near room temperature: a warm part reads thick. Blades: cut away from the hand. Solvent: gloves, ventilation, no flame.",
  release: "A certificate says what was measured and what was not. Sign only what you have seen.",
  field: "Traffic, height, live equipment, weather. Sharp rust: gloves. Old paint may hold lead.",
  causes: "A finding is not a proof: change one thing at a time. Destroying tests go on panels or scrap.",
};
