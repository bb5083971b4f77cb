import type { ErrorHandler } from 'hono';
import { HTTPException } from 'hono/http-exception';
import { isPassing } from '../db/trouble';
import { TaskFailedForNow } from '../derive/deriver';
import type { SignedIn } from '../sign-in/session';
import type { Log } from '../web/log';
import { Problem, answerProblem } from '../web/problem';

/** Everything that was thrown, as an answer that says whether it helps to try again. */
export const answerError =
  (log: Log): ErrorHandler<SignedIn> =>
  (error, c) => {
    if (error instanceof Problem) return answerProblem(c, error);
    if (error instanceof HTTPException)
      return answerProblem(c, new Problem(400, 'Not understood', 'The request is not the JSON that was expected.'));
    if (isPassing(error) || error instanceof TaskFailedForNow) {
      log.warn({ err: error, path: c.req.path }, 'the database is away or busy');
      return answerProblem(
        c,
        new Problem(
          503,
          'Busy',
          'The database cannot be reached just now, or is busy. Try again; nothing is written twice.',
        ),
      );
    }
    log.error({ err: error, path: c.req.path }, 'a mistake of the program');
    return answerProblem(
      c,
      new Problem(
        500,
        'Trouble in the server',
        'The server could not do that just now. Nothing was changed. Try again.',
      ),
    );
  };
