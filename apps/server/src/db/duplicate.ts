/** Did the database refuse a row because its id or its place is taken? */
export function isDuplicate(error: unknown): boolean {
  const cause = error instanceof Error && error.cause !== undefined ? error.cause : error;
  return cause instanceof Error && 'code' in cause && cause.code === 'ER_DUP_ENTRY';
}
