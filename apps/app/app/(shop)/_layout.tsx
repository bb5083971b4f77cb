import { Redirect, Slot } from 'expo-router';
import { useArithmetic } from '@/store/use-arithmetic';
import { useAppSelector } from '@/store/store';

/** Everything behind the sign-in. A lapsed sign-in does not shut a builder out of what is on his device. */
export default function ShopLayout() {
  const account = useAppSelector((state) => state.session.account);
  const ready = useArithmetic(account !== null);
  if (!account) return <Redirect href="/sign-in" />;
  return ready ? <Slot /> : null;
}
