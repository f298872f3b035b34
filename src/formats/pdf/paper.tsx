import { Document, Font, Page, renderToBuffer, Text, View, type TextProps } from '@react-pdf/renderer';
import { FAMILIES, fontFiles, uncovered } from './fonts';

/** A paper for a wearer, its words made already. */
export interface Paper {
  /** BCP 47. */
  readonly language: string;
  readonly title: string;
  readonly from: string;
  readonly wearer: string;
  /** Large lines first, then the rest. */
  readonly large: readonly string[];
  readonly lines: readonly string[];
  readonly danger: { readonly title: string; readonly text: string };
  readonly written: string;
}

let registered = false;
function registerFonts(): void {
  if (registered) return;
  for (const { family, weight, src } of fontFiles()) Font.register({ family, src, fontWeight: weight });
  // Words are never parted: a power that breaks is read wrong.
  Font.registerHyphenationCallback((word) => [word]);
  registered = true;
}

type Style = NonNullable<Exclude<TextProps['style'], readonly unknown[]>>;
const STYLE = { fontFamily: FAMILIES, fontSize: 11, lineHeight: 1.45, padding: 56 };

/**
 * A paper as PDF, with real text.
 * @returns the document; or the characters that no font here can write
 */
export async function writePaper(paper: Paper): Promise<{ readonly ok: true; readonly pdf: Buffer } | { readonly ok: false; readonly missing: string }> {
  const all = [paper.title, paper.from, paper.wearer, ...paper.large, ...paper.lines, paper.danger.title, paper.danger.text, paper.written];
  const missing = uncovered(all.join(' '));
  if (missing !== '') return { ok: false, missing };
  registerFonts();
  const line = (text: string, style: Style = {}) => (
    <Text key={text} style={style}>
      {text}
    </Text>
  );
  const document = (
    <Document title={paper.title} language={paper.language}>
      <Page size="A4" style={STYLE}>
        {line(paper.title, { fontSize: 17, fontWeight: 700, marginBottom: 6 })}
        {line(paper.from)}
        {line(paper.wearer, { fontWeight: 700, marginTop: 6, marginBottom: 14 })}
        {paper.large.map((text) => line(text, { fontSize: 13, fontWeight: 700, marginBottom: 4 }))}
        <View style={{ marginTop: 8 }}>{paper.lines.map((text) => line(text))}</View>
        <View style={{ marginTop: 18, padding: 10, borderWidth: 1.5, borderColor: '#000' }}>
          {line(paper.danger.title, { fontWeight: 700 })}
          {line(paper.danger.text)}
        </View>
        {line(paper.written, { marginTop: 14, fontSize: 9 })}
      </Page>
    </Document>
  );
  return { ok: true, pdf: await renderToBuffer(document) };
}
