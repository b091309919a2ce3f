import { writeFileSync } from 'node:fs';
import QRCode from 'qrcode';

const WIDE = 640;
const HIGH = 480;
const SCALE = 8;

/** A film of a label held before a camera, in the raw format a browser takes for one: its square code, black on white. */
export const filmLabel = (file: string, address: string): void => {
  const { modules } = QRCode.create(address, { errorCorrectionLevel: 'M' });
  const side = modules.size * SCALE;
  const [left, top] = [Math.floor((WIDE - side) / 2), Math.floor((HIGH - side) / 2)];
  const light = Buffer.alloc(WIDE * HIGH, 235);
  for (let y = 0; y < side; y += 1)
    for (let x = 0; x < side; x += 1)
      if (modules.get(Math.floor(y / SCALE), Math.floor(x / SCALE))) light[(top + y) * WIDE + left + x] = 16;
  const grey = Buffer.alloc((WIDE * HIGH) / 2, 128);
  const frame = Buffer.concat([Buffer.from('FRAME\n'), light, grey]);
  const head = Buffer.from(`YUV4MPEG2 W${WIDE} H${HIGH} F10:1 Ip A1:1 C420jpeg\n`);
  writeFileSync(file, Buffer.concat([head, ...Array.from({ length: 10 }, () => frame)]));
};

export const CAMERA_FLAGS = (file: string): readonly string[] => [
  '--use-fake-ui-for-media-stream',
  '--use-fake-device-for-media-stream',
  `--use-file-for-fake-video-capture=${file}`,
];
