import Svg, { Circle, Rect } from 'react-native-svg';
import type { Valve } from '@yosoku/core/cam/card';

/** Round for the intake, square for the exhaust. */
export function ValveMark({ valve, colour }: { readonly valve: Valve; readonly colour: string }) {
  return (
    <Svg width="12" height="12" viewBox="0 0 12 12" aria-hidden>
      {valve === 'intake' ? (
        <Circle cx="6" cy="6" r="5.5" fill={colour} />
      ) : (
        <Rect x="1" y="1" width="10" height="10" fill={colour} />
      )}
    </Svg>
  );
}
