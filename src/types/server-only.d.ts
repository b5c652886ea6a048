declare module "server-only";
