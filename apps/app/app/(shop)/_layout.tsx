import { Redirect, Slot } from 'expo-router';
import { useAppSelector } from '@/store/store';

/** Everything behind the sign-in. A lapsed sign-in does not shut a builder out of what is on his device. */
export default function ShopLayout() {
  const account = useAppSelector((state) => state.session.account);
  return account ? <Slot /> : <Redirect href="/sign-in" />;
}
