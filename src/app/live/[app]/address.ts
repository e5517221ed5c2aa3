/** What the address line of a page under an application holds. */
export interface AddressProps {
  params: Promise<{ app: string; address?: string[] }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

/** The application, the address in it without a leading slash, and what is asked of it, as text. */
export async function askedAt({ params, searchParams }: AddressProps) {
  const { app, address: parts = [] } = await params;
  const query = new URLSearchParams(
    Object.entries(await searchParams).flatMap(([key, value]) =>
      typeof value === 'string' ? [[key, value]] : [],
    ),
  ).toString();
  return { app, parts, address: parts.join('/'), query };
}
