import { Navigator, Redirect, Slot } from 'expo-router';
import { useArithmetic } from '@/store/use-arithmetic';
import { useAppSelector } from '@/store/store';

/** Everything behind the sign-in. A lapsed sign-in does not shut a builder out of what is on his device. */
export default function ShopLayout() {
  const account = useAppSelector((state) => state.session.account);
  const ready = useArithmetic(account !== null);
  if (!account) return <Redirect href="/sign-in" />;
  // The navigator stands from the beginning: without one the router takes the place in the address for gone, and writes that over it.
  return <Navigator>{ready ? <Slot /> : null}</Navigator>;
}
