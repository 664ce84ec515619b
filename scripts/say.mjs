/** Progress goes to standard error, so that standard output holds results only. */
export const say = (text) => process.stderr.write(`${text}\n`);

export class SetupError extends Error {}

/** The reason stands on standard error already, told by whoever knew it. */
export class ToldError extends Error {}

/** Runs a script's main function; a set-up fault is told in its own sentence, anything else with its stack. */
export async function runScript(main) {
  try {
    await main();
  } catch (error) {
    if (!(error instanceof ToldError))
      say(error instanceof SetupError ? error.message : (error?.stack ?? String(error)));
    process.exitCode = 1;
  }
}
