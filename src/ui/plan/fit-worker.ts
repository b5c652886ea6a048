import { answer, type FitQuestion } from "./fit-answer";

self.addEventListener("message", (event: MessageEvent<FitQuestion>) => self.postMessage(answer(event.data)));
