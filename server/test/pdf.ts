import { inflateSync } from 'node:zlib';

/** A field, a line or a text on a page, in mm from its upper left corner. */
export interface Field {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly colour: string;
}
export interface Stroke {
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
}
export interface Page {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly fields: readonly Field[];
  readonly strokes: readonly Stroke[];
  /** Line by line, as drawn. */
  readonly text: string;
  /** Whether its colours say which space they are of. */
  readonly isProfiled: boolean;
}
export interface Pdf {
  readonly pages: readonly Page[];
  /** Each face, and whether its file lies in the document. */
  readonly fonts: readonly { readonly name: string; readonly embedded: boolean }[];
}

const MM = 25.4 / 72;

/** Reads what is drawn on the pages of a document: enough to measure it by. */
export function readPdf(bytes: Buffer): Pdf {
  const text = bytes.toString('latin1');
  if (!text.startsWith('%PDF-') || !text.trimEnd().endsWith('%%EOF')) throw new Error('no whole document');
  const objects = new Map<number, { readonly head: string; readonly stream: string }>();
  for (const match of text.matchAll(/(?:^|\n)(\d+) 0 obj\n([\s\S]*?)endobj/g)) {
    const [, id, body] = match as unknown as [string, string, string];
    const at = body.indexOf('stream\n');
    const head = at < 0 ? body : body.slice(0, at);
    let stream = '';
    if (at >= 0) {
      const raw = Buffer.from(body.slice(at + 7, body.lastIndexOf('\nendstream')), 'latin1');
      stream = (/FlateDecode/.test(head) && !/DCTDecode/.test(head) ? inflateSync(raw) : raw).toString('latin1');
    }
    objects.set(Number(id), { head, stream });
  }
  const of = (id: string | undefined) => objects.get(Number(id))!;
  const refs = (head: string, name: string): string[] =>
    [...(new RegExp(`/${name} (?:\\[([^\\]]*)\\]|(\\d+) 0 R)`).exec(head)?.slice(1).join(' ') ?? '').matchAll(/(\d+)(?: 0 R| |$)/g)].map(
      ([, id]) => id!,
    );

  /** What each number of a face means. */
  const letters = (fontId: string): Map<number, string> => {
    const [cmapId] = refs(of(fontId).head, 'ToUnicode');
    const map = new Map<number, string>();
    for (const [, first, , list] of of(cmapId).stream.matchAll(/<([0-9a-f]+)> <([0-9a-f]+)> \[([^\]]*)\]/gi))
      [...list!.matchAll(/<([0-9a-f]*)>/gi)].forEach(([, hex], i) =>
        map.set(parseInt(first!, 16) + i, Buffer.from(hex!, 'hex').swap16().toString('utf16le')),
      );
    return map;
  };

  const pages = [...objects.values()]
    .filter(({ head }) => /\/Type \/Page\b/.test(head))
    .map(({ head }): Page => {
      const [, , width, height] = /\/MediaBox \[([^\]]*)\]/.exec(head)![1]!.split(' ').map(Number) as [number, number, number, number];
      const resources = of(refs(head, 'Resources')[0]).head;
      const faces = new Map([...resources.matchAll(/\/(F\d+) (\d+) 0 R/g)].map(([, name, id]) => [name!, letters(id!)]));
      const content = refs(head, 'Contents')
        .map((id) => of(id).stream)
        .join('\n');
      const fields: Field[] = [];
      const strokes: Stroke[] = [];
      const lines: string[] = [];
      let [rect, colour, face, from, at] = [[] as number[], '', new Map<number, string>(), [0, 0] as [number, number], ''];
      for (const line of content.split('\n')) {
        const numbers = line.split(' ').map(Number);
        if (line.endsWith(' re')) rect = numbers;
        else if (line.endsWith(' scn')) colour = numbers.slice(0, 3).join(' ');
        else if (line === 'f' && rect.length > 0)
          fields.push({ x: rect[0]! * MM, y: rect[1]! * MM, width: rect[2]! * MM, height: rect[3]! * MM, colour });
        else if (line.endsWith(' m')) from = [numbers[0]! * MM, numbers[1]! * MM];
        else if (line.endsWith(' l')) strokes.push({ from, to: [numbers[0]! * MM, numbers[1]! * MM] });
        else if (line.endsWith(' Tf')) face = faces.get(line.split(' ')[0]!.slice(1))!;
        else if (line.endsWith(' Tm')) {
          const y = line.split(' ')[5]!;
          if (y !== at) lines.push('');
          at = y;
        } else if (line.endsWith(' TJ'))
          for (const [, hex] of line.matchAll(/<([0-9a-f]*)>/gi))
            for (const [code] of hex!.matchAll(/[0-9a-f]{4}/gi)) lines[lines.length - 1] += face.get(parseInt(code, 16)) ?? '�';
      }
      return {
        widthMm: width * MM,
        heightMm: height * MM,
        fields,
        strokes,
        text: lines.join('\n'),
        isProfiled: /\/ColorSpace <<[^>]*\/DefaultRGB/s.test(resources),
      };
    });
  const fonts = [...objects.values()]
    .filter(({ head }) => /\/Type \/FontDescriptor\b/.test(head))
    .map(({ head }) => ({ name: /\/FontName \/(\S+)/.exec(head)![1]!, embedded: /\/FontFile[23]? \d+ 0 R/.test(head) }));
  return { pages, fonts };
}
