/** What is read of the air and the metal round a rack, in its canonical unit, and what no instrument reads beyond. */
export const conditionQuantities = {
  humidity: { unit: "%", bounds: [0, 100] },
  "air-temperature": { unit: "°C", bounds: [-30, 60] },
  "metal-temperature": { unit: "°C", bounds: [-30, 80] },
  "compressed-air-dew-point": { unit: "°C", bounds: [-100, 40] },
  "booth-air-speed": { unit: "m/s", bounds: [0, 5] },
} as const satisfies Record<string, { readonly unit: string; readonly bounds: readonly [number, number] }>;
export type ConditionQuantity = keyof typeof conditionQuantities;
export const conditionQuantityNames = Object.keys(conditionQuantities) as readonly ConditionQuantity[];
