import "server-only";
import { cache } from "react";
import { database } from "../database";
import { now } from "../now";
import type { Person } from "../sign-in/roles";
import { loadLine } from "./load-line";

/** The line as it stands, read once per request: frame and page show the same moment. */
export const currentLine = cache((person: Person) => loadLine(database(), person, now()));
