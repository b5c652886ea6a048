/** The usual cautions of each step, where the hand is, briefly. Data sheets, local codes and licensed practice come first. */
export const cautions: Record<string, readonly string[]> = {
  shift: ["Data sheets, local codes and licensed practice come before anything shown here."],
  plan: [
    "Lifting and hanging: rated hooks, known weights, mind tipping.",
    "Rubber, seals, struts and tanks out before any oven: what is sealed bursts. Vent closed hollows.",
    "Heat-treated aluminium: its maker’s word before any bake.",
  ],
  prepare: [
    "Blasting: supplied air, hearing protection; no silica sand; aluminium and steel dust together can explode.",
    "Old coating of unknown kind may hold lead or chromate: test it first; never burn it or rubber off in the open.",
    "Solvents: gloves, no flame, oily rags in a closed bin. Strippers burn skin and eyes. Galvanised: zinc fume when overheated.",
  ],
  pretreat: [
    "Acids and caustics: gloves, goggles. Acid into water; caustic into cool water, slowly.",
    "Nitrite with acid gives poisonous gas. Zirconium baths hold fluoride: calcium gluconate gel and an eyewash at hand.",
    "Nobody enters a tank or pit without a permit and air tests. Spills and effluent by permit.",
  ],
  coat: [
    "Powder in air can explode: no draught or no earth means stop. No ignition source; swept, not blown.",
    "Respirator, eyes and skin; hardeners sensitise, TGIC is classed as mutagenic.",
    "High voltage: the gun is off before a distance is measured.",
  ],
  cure: [
    "Hot parts, doors and fumes: gloves, extraction on. Extinguisher at hand; never left alone, never an oven that cooks food.",
    "Sealed hollows, struts and shock absorbers burst: vented or out.",
    "Burners, ventilation and interlocks by licensed people; no open flame without rated ventilation.",
  ],
  test: [
    "Read film near room temperature: a warm part reads thick.",
    "Blades: cut away from the hand. Solvent: gloves, ventilation, no flame.",
  ],
  release: ["A certificate says what was measured and what was not. Sign only what you have seen."],
  field: ["Traffic, height, live equipment, weather. Sharp rust: gloves. Old paint may hold lead."],
  causes: ["A finding is not a proof: change one thing at a time. Destroying tests go on panels or scrap."],
};
