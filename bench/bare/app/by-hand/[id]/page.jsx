import { createHash } from 'node:crypto';
import { cookies } from 'next/headers';
import { notFound, redirect } from 'next/navigation';
import pg from 'pg';
import { ItemForm } from './form';

const pool = (globalThis.barePool ??= new pg.Pool({ connectionString: process.env.DATABASE_URL, max: 20 }));

const RANK = ['volunteer', 'assistant', 'registrar', 'head'];
const MENU = [
  { name: 'Catalogue', address: 'catalogue' },
  { name: 'Items', address: 'items' },
  { name: 'Loans', address: 'loans', from: 'assistant' },
  { name: 'Condition', address: 'condition' },
  { name: 'Stores', address: 'stores', from: 'registrar' },
  {
    name: 'Reports',
    items: [
      { name: 'Out on loan', address: 'reports/out' },
      { name: 'Fragile pieces', address: 'reports/fragile' },
    ],
  },
];

/** One screen of the demo as somebody would write it by hand, with its rules in the code: to measure against. */
export default async function ItemPage({ params }) {
  const { id } = await params;
  const all = (await cookies()).getAll();
  const token = all.find(({ name }) => name.includes('live'))?.value ?? '';
  const hash = createHash('sha256').update(token).digest('hex');
  const { rows: people } = await pool.query({
    name: 'who',
    text: `select people.id, people.name, people.home_unit, array_agg(assignments.role_id) as roles
      from sessions join people on people.id = sessions.person_id
      left join assignments on assignments.person_id = people.id
        and (assignments.from is null or assignments.from <= now())
        and (assignments.until is null or now() < assignments.until)
      where sessions.token_hash = $1 and sessions.expires_at > now() and people.active and people.confirmed
      group by people.id`,
    values: [hash],
  });
  const [person] = people;
  if (!person) redirect('/sign-in');
  const rank = Math.max(...person.roles.map((role) => RANK.indexOf(role)));
  const from = (role) => rank >= RANK.indexOf(role);
  if (!from('volunteer')) notFound();
  const { rows: items } = await pool.query({
    name: 'item',
    text: `select id, version, data from records where entity = 'item' and kind = 'live' and id = $1`,
    values: [id],
  });
  const [item] = items;
  if (!item) notFound();
  const data = item.data;
  const values = from('registrar') ? data : { ...data, item_value: undefined, item_store: undefined };
  return (
    <>
      <header className="flex items-center gap-4 border-b px-5 py-2">
        <span className="font-semibold">Larkfield Loans Desk</span>
        <span className="ml-auto">
          <a href="/account">{person.name}</a>
        </span>
        <button type="button">Sign out</button>
      </header>
      <nav aria-label="Menu">
        <ul>
          {MENU.filter((one) => !one.from || from(one.from)).map((one) => (
            <li key={one.name}>
              {one.address ? <a href={`/${one.address}`}>{one.name}</a> : one.name}
              {one.items && (
                <ul>
                  {one.items.map((inner) => (
                    <li key={inner.name}>
                      <a href={`/${inner.address}`}>{inner.name}</a>
                    </li>
                  ))}
                </ul>
              )}
            </li>
          ))}
        </ul>
      </nav>
      <main>
        <h1>{data.item_title}</h1>
        <ItemForm
          id={item.id}
          version={item.version}
          values={values}
          mayEdit={from('assistant')}
          mayDelete={from('head')}
        />
      </main>
    </>
  );
}
