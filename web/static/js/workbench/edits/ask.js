// Requests to the server that are not waited for for ever: one without an answer fails in words.

const PATIENCE_MS = 20_000;
const AWAY = "The server does not answer.";

/** The answer to a request; throws, saying so, if the server is away or does not answer. */
export async function ask(address, options = {}) {
  try {
    return await fetch(address, { signal: AbortSignal.timeout(PATIENCE_MS), ...options });
  } catch {
    throw new Error(AWAY);
  }
}
