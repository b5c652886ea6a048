export * from "./layers";
export * from "./lot-lines";
export * from "./powder";
export * from "./powder-lines";
export * from "./shelf-life";
export * from "./transfer";
