/** The demo's illustrations, drawn as flat shapes, 1280 x 720. Each is a scene of the isles. */

const svg = (body: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1280 720" width="1280" height="720">${body}</svg>`;
const rect = (x: number, y: number, w: number, h: number, fill: string, more = ''): string =>
  `<rect x="${x}" y="${y}" width="${w}" height="${h}" fill="${fill}" ${more}/>`;
const disc = (x: number, y: number, r: number, fill: string, more = ''): string =>
  `<circle cx="${x}" cy="${y}" r="${r}" fill="${fill}" ${more}/>`;
const path = (d: string, fill: string, more = ''): string => `<path d="${d}" fill="${fill}" ${more}/>`;
const line = (d: string, stroke: string, width: number, more = ''): string =>
  `<path d="${d}" fill="none" stroke="${stroke}" stroke-width="${width}" stroke-linecap="round" stroke-linejoin="round" ${more}/>`;
const range = (n: number): number[] => Array.from({ length: n }, (_, i) => i);

/** A row of waves across the picture. */
function waves(y: number, height: number, fill: string, amplitude: number, length: number, phase = 0): string {
  let d = `M-20 ${y}`;
  for (let x = -20; x <= 1320; x += length) d += `q${length / 4} ${-amplitude} ${length / 2} 0t${length / 2} 0`;
  return path(`${d}V${y + height}H-20z`, fill, `transform="translate(${phase} 0)"`);
}

function person(x: number, y: number, h: number, coat: string, skin: string, skirt = false): string {
  const r = h * 0.13;
  const w = h * (skirt ? 0.24 : 0.19);
  return (
    path(
      `M${x - w * 0.55} ${y - h * 0.68}q${w * 0.55} ${-h * 0.1} ${w * 1.1} 0l${w * (skirt ? 0.75 : 0.3)} ${h * 0.68}H${x - w * (skirt ? 1.3 : 0.85)}z`,
      coat,
    ) + disc(x, y - h * 0.84, r, skin)
  );
}

function skiff(x: number, y: number, s: number, hull: string, rowers: number, ink: string): string {
  const crew = range(rowers)
    .map((i) => person(x - 110 * s + i * 62 * s, y - 8 * s, 92 * s, i % 2 ? '#35506b' : '#c9573b', '#e9c9a4'))
    .join('');
  const oars = range(rowers)
    .map((i) => line(`M${x - 100 * s + i * 62 * s} ${y - 26 * s}l${-70 * s} ${70 * s}`, ink, 5 * s))
    .join('');
  return (
    crew +
    path(
      `M${x - 190 * s} ${y - 34 * s}q${20 * s} ${62 * s} ${90 * s} ${62 * s}h${190 * s}q${80 * s} 0 ${110 * s} ${-76 * s}q${-60 * s} ${26 * s} ${-190 * s} ${26 * s}t${-200 * s} ${-12 * s}z`,
      hull,
    ) +
    oars
  );
}

const stars = (n: number, fill: string, top = 420): string =>
  range(n)
    .map((i) => disc((i * 397) % 1280, (i * 211 + i * i * 17) % top, 1.4 + ((i * 7) % 5) * 0.6, fill))
    .join('');

function lowTide(): string {
  return svg(
    rect(0, 0, 1280, 720, '#efe5d2') +
      disc(330, 190, 128, '#e06848') +
      path('M850 420q10-300 120-320q110 30 150 320z', '#4a5763') +
      path('M905 420q24-210 66-250q-14 130 4 250z', '#5d6b77') +
      rect(0, 410, 1280, 310, '#c8b38a') +
      path('M0 410q220 62 460 26t420 54t400-28v-52z', '#7fa6a4') +
      path('M0 560q260-46 540-10t740-30v34q-400 26-720 10t-560 26z', '#7fa6a4') +
      person(560, 676, 150, '#17212b', '#17212b') +
      person(660, 676, 108, '#17212b', '#17212b', true) +
      line('M596 610q20 30 36 34', '#17212b', 7) +
      range(9)
        .map((i) => path(`M${120 + i * 120} ${640 + (i % 3) * 22}q14-14 28 0q-14 8-28 0z`, '#a58f63'))
        .join(''),
  );
}
function skiffRace(): string {
  return svg(
    rect(0, 0, 1280, 720, '#cfe0e4') +
      disc(1040, 150, 70, '#f5efe0') +
      path('M0 330l190-90l160 60l210-120l190 110l170-70l360 150v40H0z', '#7c9a8d') +
      waves(340, 400, '#3f7f95', 14, 160) +
      skiff(420, 440, 1, '#b0211c', 4, '#efe5d2') +
      waves(500, 300, '#2d6a80', 18, 200, -60) +
      skiff(800, 596, 1.25, '#f0bd5a', 4, '#efe5d2') +
      waves(640, 120, '#1f5468', 20, 240, -30) +
      line('M1140 200v190', '#17212b', 6) +
      path('M1143 204l92 30l-92 34z', '#b0211c'),
  );
}
function ceilidh(): string {
  const beams = range(7)
    .map((i) => rect(60 + i * 190, 0, 26, 720, '#8c6a4b'))
    .join('');
  const lamps = range(6)
    .map((i) => line(`M${150 + i * 190} 0v${120 + (i % 2) * 26}`, '#3a2a35', 3) + disc(150 + i * 190, 140 + (i % 2) * 26, 26, '#f5c65d'))
    .join('');
  const pairs = range(4)
    .map((i) => {
      const x = 210 + i * 290;
      const y = 640 - (i % 2) * 24;
      return (
        person(x, y, 300, ['#5d2b66', '#17414b', '#873419', '#274a2a'][i] as string, '#e9c9a4') +
        person(x + 118, y, 280, ['#d8623f', '#e3a93c', '#8c4f95', '#b0211c'][i] as string, '#d9ae85', true) +
        line(`M${x + 30} ${y - 190}q34 -60 62 0`, '#3a2a35', 12)
      );
    })
    .join('');
  return svg(
    rect(0, 0, 1280, 720, '#e8d9bd') +
      beams +
      rect(0, 610, 1280, 110, '#a9845a') +
      lamps +
      line('M0 90q320 90 640 0t640 0', '#86308f', 5) +
      pairs,
  );
}
function lighthouse(): string {
  return svg(
    rect(0, 0, 1280, 720, '#152238') +
      stars(110, '#eef2f1') +
      path('M820 206L0 60v250z', '#f5e2a0', 'opacity=".28"') +
      path('M820 206L1280 90v190z', '#f5e2a0', 'opacity=".2"') +
      path('M560 640q120-120 270-110t330 130v60H560z', '#0b1220') +
      path('M782 560l18-320h44l18 320z', '#eef1ee') +
      path('M790 420h64l4 62h-72z', '#b0211c') +
      path('M796 300h52l4 56h-60z', '#b0211c') +
      rect(788, 226, 68, 18, '#17212b') +
      rect(798, 184, 48, 44, '#f5c65d') +
      path('M792 184h60l-30-34z', '#b0211c') +
      waves(640, 100, '#1d3554', 12, 180) +
      waves(680, 60, '#274568', 12, 150, -40),
  );
}
function market(): string {
  const stall = (x: number, a: string, b: string, goods: string): string =>
    range(6)
      .map((i) => path(`M${x + i * 50} 250h50l6 70q-28 26-56 0z`, i % 2 ? a : b))
      .join('') +
    rect(x + 6, 318, 10, 270, '#5a4632') +
    rect(x + 288, 318, 10, 270, '#5a4632') +
    rect(x - 8, 470, 320, 120, '#7a5c3e') +
    range(11)
      .map((i) => disc(x + 22 + i * 27, 462 - (i % 2) * 14, 19, goods))
      .join('');
  return svg(
    rect(0, 0, 1280, 720, '#dfe9e6') +
      range(5)
        .map((i) =>
          path(
            `M${i * 280 - 40} 250v-${90 + (i % 3) * 40}l70-52l70 52v${90 + (i % 3) * 40}z`,
            ['#b9c7bf', '#c9bda6', '#aebdc4'][i % 3] as string,
          ),
        )
        .join('') +
      rect(0, 590, 1280, 130, '#9aa39c') +
      stall(70, '#b0211c', '#f3eee1', '#d97a2b') +
      stall(490, '#0c5a63', '#f3eee1', '#6b8f35') +
      stall(910, '#8a5a00', '#f3eee1', '#8e2f4f') +
      person(430, 680, 220, '#35506b', '#e9c9a4') +
      person(860, 690, 200, '#86308f', '#c99a70', true) +
      person(930, 690, 120, '#e0a33c', '#c99a70'),
  );
}
function choir(): string {
  const row = (y: number, n: number, h: number, dx: number): string =>
    range(n)
      .map((i) => {
        const x = 140 + dx + i * (1000 / (n - 1));
        return (
          person(x, y, h, ['#2a3b4f', '#3b2b4d', '#21434a'][i % 3] as string, ['#e9c9a4', '#c99a70', '#a87650'][i % 3] as string) +
          path(`M${x - 24} ${y - h * 0.5}l24 12l24-12v34l-24 12l-24-12z`, '#f3eee1') +
          disc(x, y - h * 0.8, 6, '#7a2d2d')
        );
      })
      .join('');
  return svg(
    rect(0, 0, 1280, 720, '#d9c7e0') +
      range(3)
        .map(
          (i) =>
            path(`M${240 + i * 320} 380v-210q80-130 160 0v210z`, '#f6edc8') +
            line(`M${320 + i * 320} 105v275M${240 + i * 320} 240h160`, '#b79bc2', 7),
        )
        .join('') +
      rect(0, 640, 1280, 80, '#8f6f9b') +
      row(520, 7, 330, 0) +
      row(680, 6, 360, 0),
  );
}
function senderChanges(): string {
  return svg(
    rect(0, 0, 1280, 720, '#e6dcc8') +
      rect(0, 540, 1280, 180, '#8a623c') +
      line('M0 540h1280', '#5b3f24', 8) +
      path('M140 540l120-330h360l150 330z', '#35607a') +
      path('M330 300h130v120h-130z', '#c9573b') +
      line('M320 292h150v138h-150z', '#f3eee1', 6, 'stroke-dasharray="16 14"') +
      line('M486 432q190 120 330-60t190-120', '#f3eee1', 6) +
      path('M1006 244l150-120l-132 142z', '#9aa3a8') +
      disc(930, 480, 84, '#b0211c') +
      range(5)
        .map((i) => line(`M${858 + i * 10} ${440 + i * 20}q70 ${30 - i * 12} 140 ${-4 + i * 6}`, '#8a1814', 5))
        .join('') +
      rect(1060, 400, 110, 140, '#f3eee1') +
      path('M1170 430q70 0 60 50t-60 40', 'none', 'stroke="#f3eee1" stroke-width="18"') +
      line('M1090 380q-14-30 6-56t0-54', '#b9ab93', 7) +
      line('M1130 380q-14-30 6-56t0-54', '#b9ab93', 7),
  );
}
function nightSky(): string {
  const hunter = [
    [520, 170],
    [640, 150],
    [560, 290],
    [600, 280],
    [640, 270],
    [540, 420],
    [680, 400],
  ];
  return svg(
    rect(0, 0, 1280, 720, '#0f1830') +
      path('M0 0h1280v280Q820 520 0 340z', '#1b2850', 'opacity=".8"') +
      stars(190, '#dfe6f5', 560) +
      hunter.map(([x, y], i) => disc(x as number, y as number, i === 0 ? 9 : 6, i === 0 ? '#ffb199' : '#ffffff')).join('') +
      line('M520 170L560 290L540 420M640 150L640 270L680 400M560 290L640 270M520 170L640 150M540 420L680 400', '#7f93c4', 2) +
      path('M0 640q300-80 620-40t660-30v150H0z', '#080d1a') +
      person(320, 650, 150, '#080d1a', '#080d1a') +
      line('M410 640l40-90M450 640l-20-90M380 600l120-80', '#080d1a', 12) +
      disc(300, 570, 7, '#ff6b5a'),
  );
}
function seeds(): string {
  const packet = (x: number, tilt: number, fill: string, art: string): string =>
    `<g transform="translate(${x} 190) rotate(${tilt} 110 160)">${rect(0, 0, 220, 320, fill)}${path('M0 0h220l-20 44H20z', '#ffffff55')}${rect(26, 78, 168, 168, '#f6f1e0')}${art}${rect(40, 268, 140, 10, '#f6f1e0')}${rect(60, 288, 100, 8, '#f6f1e0')}</g>`;
  const carrot = path('M88 120h44l-22 110z', '#d97a2b') + line('M110 120v-30M102 118l-16-26M118 118l16-26', '#4d7a2a', 7);
  const beet = disc(110, 178, 42, '#8e2f4f') + line('M110 136v-36M100 138l-20-30M120 138l20-30', '#4d7a2a', 7);
  const bean =
    line('M110 236q-40-60 10-90t0-52', '#4d7a2a', 6) + path('M70 150q20-22 50 4q-20 22-50-4zM112 190q34-22 50 6q-26 18-50-6z', '#6b8f35');
  return svg(
    rect(0, 0, 1280, 720, '#dce5cf') +
      rect(0, 560, 1280, 160, '#6d4e36') +
      range(40)
        .map((i) => disc((i * 97) % 1280, 580 + ((i * 53) % 120), 5, '#54391f'))
        .join('') +
      packet(170, -9, '#35607a', beet) +
      packet(520, 3, '#a34a08', carrot) +
      packet(870, 10, '#4d6b2a', bean) +
      range(9)
        .map(
          (i) =>
            line(`M${60 + i * 145} 640v-46`, '#7ea24b', 6) +
            path(`M${60 + i * 145} 600q-30-26-46 0q22 20 46 0q30-26 46 0q-22 20-46 0z`, '#7ea24b'),
        )
        .join(''),
  );
}
function bread(): string {
  return svg(
    rect(0, 0, 1280, 720, '#efdcc0') +
      path('M190 720V330q0-230 450-230t450 230v390z', '#b3664a') +
      range(6)
        .map((r) => line(`M${200 + (r % 2) * 20} ${250 + r * 80}h${880 - (r % 2) * 40}`, '#9a5039', 5))
        .join('') +
      path('M430 640V430q0-130 210-130t210 130v210z', '#2a1a16') +
      path('M470 640V470q0-90 170-90t170 90v170z', '#e0702f') +
      path('M520 640q-20-100 50-150q-6 60 40 60q0-70 60-110q10 70 60 90q50 40 20 110z', '#f5c65d') +
      rect(120, 640, 1040, 80, '#6d4e36') +
      range(4)
        .map(
          (i) =>
            path(`M${170 + i * 250} 642q0-74 90-74t90 74z`, '#c98a45') +
            line(`M${215 + i * 250} 612l20-30M${250 + i * 250} 606l20-32M${286 + i * 250} 612l18-26`, '#8f5a25', 7),
        )
        .join(''),
  );
}
function chart(): string {
  const rose = range(8)
    .map((i) =>
      path(
        'M0 -120L16 -16L0 0L-16 -16z',
        i % 2 ? '#b0211c' : '#17212b',
        `transform="translate(960 420) rotate(${i * 45}) scale(${i % 2 ? 0.65 : 1})"`,
      ),
    )
    .join('');
  return svg(
    rect(0, 0, 1280, 720, '#7a5c3e') +
      path('M90 80l1080-30l30 600l-1100 20z', '#f1e8d0') +
      [170, 300, 430, 560].map((y) => line(`M110 ${y}h1070`, '#d9cda9', 3)).join('') +
      [280, 470, 660, 850, 1040].map((x) => line(`M${x} 70v590`, '#d9cda9', 3)).join('') +
      path('M230 210q80-80 190-30t120 120q-20 90-140 90t-170-60t0-120z', '#dcd2a8', 'stroke="#17212b" stroke-width="5"') +
      path('M640 160q70-50 120 0t10 80q-60 40-110 0t-20-80z', '#dcd2a8', 'stroke="#17212b" stroke-width="5"') +
      line('M470 380q60 120 190 110t130-240', '#b0211c', 6, 'stroke-dasharray="22 18"') +
      rose +
      disc(960, 420, 14, '#f1e8d0') +
      line('M700 610l120-240l40 250', '#9aa3a8', 12) +
      disc(820, 366, 14, '#8a5a00'),
  );
}
function gannets(): string {
  const bird = (x: number, y: number, s: number, turn: number): string =>
    `<g transform="translate(${x} ${y}) scale(${s}) rotate(${turn})">${path('M-150 0q70-60 150-10q80-50 150 10q-80 0-120 34q-30 20-60 0q-40-34-120-34z', '#ffffff')}${path('M-150 0q26-22 60-30l-20 36zM150 0q-26-22-60-30l20 36z', '#17212b')}${path('M-14 26q14 40 28 0z', '#f0d9a0')}</g>`;
  return svg(
    rect(0, 0, 1280, 720, '#bcd8de') +
      disc(250, 180, 90, '#f7eed8') +
      path('M0 720V470l120-60l80 40l120-120l160 60l90 330z', '#59636b') +
      path('M320 330l160 60l-40 80l-80-30z', '#78838b') +
      range(12)
        .map((i) => path(`M${60 + i * 38} ${520 + (i % 4) * 44}q14-26 28 0z`, '#ffffff'))
        .join('') +
      waves(600, 130, '#3b7888', 16, 190) +
      waves(660, 70, '#2c6474', 14, 150, -50) +
      bird(820, 220, 1.1, -6) +
      bird(1050, 380, 0.7, 10) +
      bird(620, 420, 0.55, -14) +
      bird(1120, 150, 0.45, 4),
  );
}
function ferry(): string {
  return svg(
    rect(0, 0, 1280, 720, '#f0d9c4') +
      disc(980, 330, 110, '#e88f5f') +
      waves(430, 300, '#5f8fa0', 10, 220) +
      path('M170 380h860l60-40l-50 150H260z', '#17414b') +
      rect(300, 290, 560, 92, '#f3eee1') +
      rect(400, 220, 300, 72, '#f3eee1') +
      range(7)
        .map((i) => rect(330 + i * 74, 314, 44, 36, '#3f7f95'))
        .join('') +
      range(4)
        .map((i) => rect(424 + i * 68, 238, 40, 30, '#3f7f95'))
        .join('') +
      rect(720, 170, 60, 122, '#b0211c') +
      rect(720, 196, 60, 20, '#17212b') +
      path('M750 160q40-40 110-30t120-50q-40 90-120 90t-110 0z', '#ffffff', 'opacity=".7"') +
      line('M190 378h850', '#f0bd5a', 8) +
      waves(480, 260, '#45798b', 16, 170, -40) +
      waves(580, 160, '#336375', 18, 210),
  );
}
function lanterns(): string {
  const lamp = (x: number, y: number, s: number, fill: string): string =>
    disc(x, y, 74 * s, fill, 'opacity=".25"') +
    path(`M${x - 26 * s} ${y - 34 * s}h${52 * s}l${10 * s} ${70 * s}h${-72 * s}z`, fill) +
    line(`M${x} ${y - 34 * s}v${-30 * s}`, '#e8e2d0', 4) +
    line(`M${x - 36 * s} ${y + 36 * s}h${72 * s}`, '#8a5a00', 6);
  return svg(
    rect(0, 0, 1280, 720, '#1d2740') +
      stars(70, '#aab6d6', 300) +
      path('M0 520q200-160 430-120t400-80t450 60v340H0z', '#131b2e') +
      path('M0 720V600q400-70 760-30t520-20v170z', '#e9eef2') +
      range(6)
        .map(
          (i) =>
            person(
              170 + i * 190,
              660 - (i % 2) * 18,
              190 - (i % 3) * 34,
              ['#2e4a63', '#5d2b4f', '#35513a'][i % 3] as string,
              '#e9c9a4',
              i % 2 === 0,
            ) + lamp(232 + i * 190, 520 - (i % 2) * 22, 0.8, ['#f5c65d', '#f09a5a', '#f7dc8c'][i % 3] as string),
        )
        .join('') +
      range(60)
        .map((i) => disc((i * 173) % 1280, (i * 97) % 560, 3, '#ffffff'))
        .join(''),
  );
}
function fiddle(): string {
  return svg(
    rect(0, 0, 1280, 720, '#2f4a4f') +
      path('M0 560h1280v160H0z', '#233a3f') +
      `<g transform="translate(640 380) rotate(-38)">${path('M-70 -40q-90-110 0-180q70-50 140 0q90 70 0 180q-34 40 0 84q100 120-10 190q-60 40-120 0q-110-70-10-190q34-44 0-84z', '#a4562a')}${path('M-50 -56q-60-90 6-146q44-36 88 0q66 56 6 146z', '#b8682f')}${rect(-16, -470, 32, 360, '#2a1a16')}${path('M-30 -520h60l-14 60h-32z', '#2a1a16')}${rect(-34, 60, 68, 10, '#efe5d2')}${path('M-18 130h36l-8 90h-20z', '#2a1a16')}${[-9, -3, 3, 9].map((x) => line(`M${x} -460V150`, '#efe5d2', 2)).join('')}${line('M-44 -4q-14 30 6 54M44 -4q14 30 -6 54', '#2a1a16', 6)}</g>` +
      line('M300 620L1010 140', '#d9b98a', 12) +
      line('M306 636L1016 156', '#efe5d2', 4) +
      range(7)
        .map(
          (i) =>
            disc(150 + i * 170, 110 + Math.sin(i * 1.7) * 60, 16, '#f0bd5a') +
            line(`M${165 + i * 170} ${110 + Math.sin(i * 1.7) * 60}v-70q20 14 34 10`, '#f0bd5a', 6),
        )
        .join(''),
  );
}
function whale(): string {
  return svg(
    rect(0, 0, 1280, 720, '#e8e6dc') +
      rect(0, 380, 1280, 340, '#4d8794') +
      path('M0 400l240-60l170 40h-410zM900 380l210-50l170 50z', '#9fb0a6') +
      path(
        'M640 560q-34-140-20-230q-110 10-190-100q120-10 200 60q10 20 16 30q6-10 16-30q80-70 200-60q-80 110-190 100q14 90-20 230z',
        '#26404d',
      ) +
      waves(520, 220, '#3c7382', 14, 200) +
      waves(610, 120, '#2e6272', 16, 170, -50) +
      path('M930 470l60 60h170l50-60z', '#b0211c') +
      person(1020, 476, 110, '#f0bd5a', '#e9c9a4') +
      person(1100, 476, 100, '#17212b', '#c99a70'),
  );
}
function knitting(): string {
  return svg(
    rect(0, 0, 1280, 720, '#e9dfe6') +
      range(6)
        .map(
          (i) =>
            disc(200 + i * 180, 560 - (i % 2) * 40, 100, ['#b0211c', '#0c5a63', '#e0a33c', '#5d2b66', '#4d6b2a', '#35607a'][i] as string) +
            range(4)
              .map((k) => line(`M${120 + i * 180} ${530 + k * 26 - (i % 2) * 40}q80 ${-50 + k * 10} 160 ${k * 4}`, '#ffffff55', 6))
              .join(''),
        )
        .join('') +
      path('M420 130h440v250H420z', '#f6f1e0') +
      range(11)
        .map((i) =>
          range(6)
            .map((k) =>
              path(
                `M${424 + i * 40} ${150 + k * 38}l18 18l18-18v14l-18 18l-18-18z`,
                (i + k) % 4 === 0 ? '#b0211c' : (i * k) % 5 === 2 ? '#0c5a63' : '#d8cfbb',
              ),
            )
            .join(''),
        )
        .join('') +
      line('M330 90L960 150', '#8a5a00', 16) +
      line('M950 80L330 180', '#8a5a00', 16) +
      disc(326, 90, 20, '#5b3f24') +
      disc(956, 78, 20, '#5b3f24'),
  );
}

export interface Scene {
  key: string;
  alt: string;
  credit: string;
  draw: () => string;
}

export const SCENES: Scene[] = [
  { key: 'low-tide', alt: 'Two people walk over wet sand towards a tall rock, under a red sun', credit: 'Shore Wardens', draw: lowTide },
  { key: 'skiffs', alt: 'Two rowing skiffs race across the sound, hills behind them', credit: 'Isles Skiff Club', draw: skiffRace },
  { key: 'ceilidh', alt: 'Couples dance under lamps in a timbered loft', credit: 'Net Loft Dances', draw: ceilidh },
  { key: 'lighthouse', alt: 'A red and white lighthouse throws its beam over a dark sea', credit: 'Skerry Sky Watch', draw: lighthouse },
  { key: 'market', alt: 'Three striped market stalls with fruit and vegetables on a quay', credit: 'Quay Market Company', draw: market },
  { key: 'choir', alt: 'Two rows of singers hold open music before three tall windows', credit: 'Harbour Choir', draw: choir },
  {
    key: 'mending',
    alt: 'A patched blue sail, a needle with thread, a ball of wool and a steaming cup',
    credit: 'The Mending Bench',
    draw: senderChanges,
  },
  { key: 'night-sky', alt: 'Somebody with a telescope under a sky full of stars', credit: 'Skerry Sky Watch', draw: nightSky },
  { key: 'seeds', alt: 'Three seed packets stand over a bed with small green plants', credit: 'Salt Garden Society', draw: seeds },
  { key: 'bread', alt: 'A brick oven with a bright fire, four loaves in front of it', credit: 'The Bread Oven', draw: bread },
  { key: 'chart', alt: 'An old sea chart with a red course, a compass rose and dividers', credit: "Pilots' House Library", draw: chart },
  { key: 'gannets', alt: 'White gannets fly above a cliff with nests', credit: 'Shore Wardens', draw: gannets },
  { key: 'ferry', alt: 'The island ferry crosses calm water at sunset', credit: 'Kittiwick Isles Almanac', draw: ferry },
  { key: 'lanterns', alt: 'A line of people with lanterns walks through snow at night', credit: 'Kittiwick Isles Almanac', draw: lanterns },
  { key: 'fiddle', alt: 'A fiddle and its bow, notes rising above', credit: 'Net Loft Dances', draw: fiddle },
  { key: 'whale', alt: "A whale's tail rises beside a small red boat", credit: 'Shore Wardens', draw: whale },
  { key: 'knitting', alt: 'Balls of wool and a piece of patterned knitting on two needles', credit: 'The Mending Bench', draw: knitting },
];
