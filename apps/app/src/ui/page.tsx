import { TextLink } from './text-link';
import type { Href } from 'expo-router';
import type { ReactNode } from 'react';
import { ScrollView, View } from 'react-native';
import { Words } from './words';

interface PageProps {
  readonly title: string;
  readonly back?: { readonly href: Href; readonly label: string };
  readonly aside?: ReactNode;
  readonly children: ReactNode;
}

/** A page away from the engine: one column, readable on a phone, not stretched on a wide screen. */
export function Page({ title, back, aside, children }: PageProps) {
  return (
    <ScrollView role="main" className="flex-1 bg-ground" contentContainerStyle={{ alignItems: 'center' }}>
      <View className="w-full max-w-[640px] gap-5 px-4 pb-12 pt-3">
        {back ? (
          <TextLink href={back.href} small className="min-h-[44px] self-start py-3">
            ‹ {back.label}
          </TextLink>
        ) : null}
        <View className="flex-row flex-wrap items-baseline justify-between gap-2">
          <Words look="title" level={1}>
            {title}
          </Words>
          {aside}
        </View>
        {children}
      </View>
    </ScrollView>
  );
}
