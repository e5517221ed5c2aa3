import { send, type Answer } from '@/ui/live/host';

const known = new Map<string, Promise<Answer<unknown>>>();

/** What is at the URL, asked for once. What fails is not kept: whoever asks next tries again. */
export function askOnce<T>(url: string): Promise<Answer<T>> {
  let found = known.get(url);
  if (!found) {
    found = send('GET', url).then((answer) => {
      if (!answer.ok) known.delete(url);
      return answer;
    });
    known.set(url, found);
  }
  return found as Promise<Answer<T>>;
}
