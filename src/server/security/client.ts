import { cookies } from 'next/headers';
import type { Client } from './attempts';
import { liveCookie, studioCookie } from './sessions';

/** The header in which the server that stands in front of the routes says where a request comes from. */
const ADDRESS = 'x-zinc-address';

/** From where a request comes; those who are signed out are told apart by it. */
export const addressOf = (request: Request): string | undefined => request.headers.get(ADDRESS) ?? undefined;

/** From where a request to the studio comes, and with which device. */
export const studioClientOf = async (request: Request): Promise<Client> =>
  clientOf(request, (await studioCookie('device')).name);

/** From where a request to a released application comes, and with which device. */
export const liveClientOf = async (request: Request, app: string): Promise<Client> =>
  clientOf(request, (await liveCookie(app, 'device')).name);

const clientOf = async (request: Request, deviceCookie: string): Promise<Client> => ({
  address: addressOf(request) ?? 'unknown',
  device: (await cookies()).get(deviceCookie)?.value,
});
