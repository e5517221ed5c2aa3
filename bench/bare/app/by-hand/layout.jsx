import { redirect } from 'next/navigation';
import { Frame } from './frame';
import { who } from './who';

const MENU = [
  { id: 'm_catalogue', name: 'Catalogue', address: 'catalogue' },
  { id: 'm_items', name: 'Items', address: 'items' },
  { id: 'm_loans', name: 'Loans', address: 'loans', from: 'assistant' },
  { id: 'm_condition', name: 'Condition', address: 'condition' },
  { id: 'm_stores', name: 'Stores', address: 'stores', from: 'registrar' },
  {
    id: 'm_reports',
    name: 'Reports',
    items: [
      { id: 'm_out', name: 'Out on loan', address: 'reports/out' },
      { id: 'm_fragile', name: 'Fragile pieces', address: 'reports/fragile' },
    ],
  },
  { id: 'm_evenings', name: 'Evenings', closed: 'Only from six in the evening.' },
];

export async function generateMetadata() {
  return { title: (await who()) ? 'Larkfield Loans Desk' : 'Not found' };
}

export default async function Layout({ children }) {
  const person = await who();
  if (!person) redirect('/sign-in');
  return (
    <Frame
      name="Larkfield Loans Desk"
      person={person.name}
      menu={MENU.filter((one) => !one.from || person.from(one.from))}
    >
      {children}
    </Frame>
  );
}
