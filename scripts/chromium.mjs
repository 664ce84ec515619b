/** Debian's Chromium, drawing in software, for benches and pictures. */
export const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium';

const FLAGS = [
  '--use-gl=angle',
  '--use-angle=swiftshader',
  '--enable-unsafe-swiftshader',
  '--ignore-gpu-blocklist',
  '--disable-background-networking',
  '--disable-quic',
];

export async function launchChromium() {
  // Packages may only just have been installed.
  const { chromium } = await import('@playwright/test');
  return chromium.launch({
    executablePath: CHROMIUM,
    args: [...(process.getuid?.() === 0 ? ['--no-sandbox'] : []), ...FLAGS],
  });
}
