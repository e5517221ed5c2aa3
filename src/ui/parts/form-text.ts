/** What stands in a field of a form; empty where it is not there, or is a file. */
export function textIn(form: FormData, name: string): string {
  const value = form.get(name);
  return typeof value === 'string' ? value : '';
}
