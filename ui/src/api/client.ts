import createClient from "openapi-fetch";
import type { components, paths } from "./schema.gen";

export type Schemas = components["schemas"];
export type Trace = Schemas["TraceView"];
export type Part = Schemas["PartView"];
export type Line = Schemas["LineView"];
export type Job = Schemas["JobView"];
export type Preview = Schemas["LinePreview"];
export type Meter = Schemas["Meter"];
export type ListedJob = Schemas["ListedJob"];
export type Settings = Schemas["KeptSettings"];
export type Verdict = Schemas["Verdict"];
export type Safety = Schemas["SafetyState"];
export type MeterFunction = Schemas["Function"];
export type Problem = Schemas["Problem"];
export type WayOn = Schemas["WayOnView"];
export type Intake = Schemas["IntakeView"];
export type NewIntake = Omit<Schemas["NewIntake"], "intake_revision">;
export type SafeState = Schemas["SafeView"];
export type Codes = Schemas["CodesView"];
export type SchemeView = Schemas["SchemeView"];
export type Sequence = Schemas["SequenceView"];
export type Cycle = Schemas["CycleView"];
export type Decoded = Schemas["DecodedCode"];
export type Attempt = Schemas["AttemptView"];
export type Click = Schemas["Click"];
export type EventBody = Schemas["NewEvent"]["body"];
export type Address = Schemas["Address"];
export type Photo = Schemas["PhotoView"];
export type Rungs = Schemas["RungsView"];
export type Meaning = Schemas["Meaning"];

export const client = createClient<paths>({
  baseUrl: globalThis.location.origin,
  fetch: (request) => globalThis.fetch(request),
});

/** What went wrong, in one sentence for a person, with the server's problem where it gave one. */
export class ApiError extends Error {
  constructor(
    message: string,
    readonly problem?: Problem,
  ) {
    super(message);
  }
}

/** What is taken in at most: a larger file is told before it is sent, since its sending would be cut off. */
export const LARGEST_PHOTO = 30_000_000;
export const LARGEST_ARCHIVE = 300_000_000;

export function refuseLarge(file: File, most: number): void {
  if (file.size <= most) return;
  throw new ApiError(TOO_LARGE(file.name, file.size / 1e6, most / 1e6));
}

const TOO_LARGE = (name: string, size: number, most: number) =>
  `${name} has ${size.toFixed(0)} MB, at most ${most.toFixed(0)} MB are taken.`;

export const NO_ANSWER = "The server does not answer. Nothing is lost here: try again when it runs.";

/** Unwrap an answer: its data, or an error whose message can be shown as it stands. */
export async function unwrap<T>(answer: Promise<{ data?: T; error?: unknown }>): Promise<T> {
  let result: { data?: T; error?: unknown };
  try {
    result = await answer;
  } catch (cause) {
    if (cause instanceof DOMException && cause.name === "AbortError") throw cause;
    throw new ApiError(NO_ANSWER);
  }
  if (result.data !== undefined) return result.data;
  const problem = result.error as Problem | undefined;
  throw new ApiError(problem?.detail ?? NO_ANSWER, problem);
}
