import QRCode from 'qrcode';
import type { QrCode } from '@yosoku/core/paper/qr-marks';

/** The squares of the QR code of an address, for paper: a quarter of it may be soiled. */
export function codeOf(address: string): QrCode {
  const { modules } = QRCode.create(address, { errorCorrectionLevel: 'Q' });
  return { size: modules.size, isDark: (row, column) => Boolean(modules.get(row, column)) };
}
