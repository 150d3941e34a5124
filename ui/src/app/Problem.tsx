/** What went wrong, in one sentence, read out at once; nothing where nothing did. */
export function Problem({ error, text = "" }: { error?: Error | null; text?: string }) {
  const said = text || error?.message;
  return said ? (
    <p className="problem" role="alert">
      {said}
    </p>
  ) : null;
}
