import { View } from 'react-native';
import type { Report } from '@yosoku/core/report/report';
import { lateOrEarly } from '@yosoku/core/report/place-words';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { type CardOfShop, offered, useShelves } from '@/forms/use-shelves';
import { QuietButton } from '@/ui/buttons';
import { Words } from '@/ui/words';

interface CardsProps {
  /** The name as it stands in the form. */
  readonly typed: string;
  readonly onTake: (card: CardOfShop) => void;
}

/** Cards that the shop has entered before, from the second letter of their name on. */
export function CardsOfShop({ typed, onTake }: CardsProps) {
  const { cards } = useShelves();
  const found = offered(cards, typed);
  if (found.length === 0) return null;
  return (
    <View className="gap-1 border-l-4 border-brass pl-3" testID="cards-of-shop">
      <Words look="soft">Entered before in this shop. A press fills the card in; every figure can be changed.</Words>
      {found.map((card) => (
        <View key={card.name} className="items-start">
          <QuietButton testID="card-offer" label={card.name ?? ''} onPress={() => onTake(card)} />
        </View>
      ))}
    </View>
  );
}

/** How the last builds of this kind came in, before anything was moved. */
export function Kin({ like }: Pick<Report['build'], 'like'>) {
  if (like.length === 0) return null;
  const came = like.map(({ name, delta, expanded }) => {
    const size = Math.abs(delta) < 0.05 ? 'on its target' : `${computedDegrees(Math.abs(delta))} ${lateOrEarly(delta)}`;
    return `${name} ${size} (±${computedDegrees(expanded)})`;
  });
  return (
    <Words look="body" testID="kin">
      {`The last of this kind came in: ${came.join('; ')}.`}
    </Words>
  );
}
