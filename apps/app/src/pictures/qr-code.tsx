import QRCode from 'qrcode';
import { useMemo } from 'react';
import { View } from 'react-native';
import Svg, { Path, Rect } from 'react-native-svg';

interface QrCodeProps {
  readonly text: string;
  readonly size: number;
  /** What a phone finds there, in words. */
  readonly description: string;
}

/** Blank modules round a code: ISO/IEC 18004, 7.3.8. */
const QUIET = 4;

/** A QR code, dark on light in both themes: cameras read it so. */
export function QrCode({ text, size, description }: QrCodeProps) {
  const { span, path } = useMemo(() => {
    const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' });
    const squares: string[] = [];
    for (let row = 0; row < modules.size; row += 1)
      for (let column = 0; column < modules.size; column += 1)
        if (modules.get(row, column)) squares.push(`M${column + QUIET} ${row + QUIET}h1v1h-1z`);
    return { span: modules.size + 2 * QUIET, path: squares.join('') };
  }, [text]);
  return (
    <View role="img" aria-label={description} testID="qr-code">
      <Svg width={size} height={size} viewBox={`0 0 ${span} ${span}`}>
        <Rect width={span} height={span} fill="#ffffff" />
        <Path d={path} fill="#000000" />
      </Svg>
    </View>
  );
}
