export * from "./cross-cut-photo";
export * from "./homography";
export * from "./image";
export * from "./lattice";
export * from "./lifted";
export * from "./rust-share";
