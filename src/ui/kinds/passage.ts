import { type Say, words } from "./said";

export const say: Say = ({ passage: [row] = [] }) => `into ${words(row?.stage)}`;
