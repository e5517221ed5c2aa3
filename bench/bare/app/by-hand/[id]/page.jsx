import { notFound, redirect } from 'next/navigation';
import { pool, who } from '../who';
import { ItemForm } from './form';

/** One screen of the demo as somebody would write it by hand, with its rules in the code: to measure against. */
export default async function ItemPage({ params }) {
  const { id } = await params;
  const person = await who();
  if (!person) redirect('/sign-in');
  if (!person.from('volunteer')) notFound();
  const { rows } = await pool.query({
    name: 'item',
    text: `select id, version, data from records where entity = 'item' and kind = 'live' and id = $1`,
    values: [id],
  });
  const [item] = rows;
  if (!item) notFound();
  const { item_value, item_store, ...open } = item.data;
  return (
    <ItemForm
      id={item.id}
      version={item.version}
      values={person.from('registrar') ? { ...open, item_value, item_store } : open}
      mayEdit={person.from('assistant')}
      mayDelete={person.from('head')}
    />
  );
}
