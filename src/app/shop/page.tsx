import { redirect } from 'next/navigation';
import { currentActor } from '@/server/http';
import { ShopPage } from './ShopPage';

export const metadata = { title: 'Shop · Surrik' };

export default async function Page() {
  if (!(await currentActor())) redirect('/sign-in');
  return <ShopPage />;
}
