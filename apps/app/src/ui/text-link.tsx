import { Link, type LinkProps } from 'expo-router';

/** A way to another page, in words. `small` where it stands among labels. */
export function TextLink({ small = false, className = '', ...rest }: LinkProps & { readonly small?: boolean }) {
  return <Link {...rest} className={`font-medium text-brass ${small ? 'text-[16px]' : 'text-[17px]'} ${className}`} />;
}
