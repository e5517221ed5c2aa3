import type { Client } from './attempts';

/** The header in which the server that stands in front of the routes says where a request comes from. */
const ADDRESS = 'x-zinc-address';

/** From where a request comes, and with which device. */
export const clientOf = (
  request: Request,
  cookies: { get(name: string): { readonly value: string } | undefined },
  deviceCookie: string,
): Client => ({
  address: request.headers.get(ADDRESS) ?? 'unknown',
  device: cookies.get(deviceCookie)?.value,
});
