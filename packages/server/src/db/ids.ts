const ID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** Whether a text can be the id of a row: what is none is not asked for, since the database would refuse it as a fault. */
export function isId(text: string): boolean {
  return ID.test(text);
}
