export * from "./before-after";
export * from "./coach";
export * from "./earth-chain";
export * from "./pre-flight";
export * from "./recoat";
export * from "./set-up";
export * from "./what-changed";
