import { isHttpError } from '@sveltejs/kit';

/** With which status and sentence something is refused; "taken" where it is not. */
export async function refusedAs(act: () => unknown): Promise<string> {
  try {
    await act();
  } catch (error) {
    if (isHttpError(error)) return `${error.status} ${error.body.message}`;
    throw error;
  }
  return 'taken';
}
