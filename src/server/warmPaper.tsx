/** Sets one line in every face: what the first report of a day would else wait for. */
import { Document, Page, renderToBuffer, Text } from '@react-pdf/renderer';
import { fonts, s } from './paper';

export async function warmPaper(): Promise<void> {
  fonts();
  await renderToBuffer(
    <Document>
      <Page size="A4" style={s.page}>
        <Text>Surrik</Text>
        <Text style={s.strong}>Surrik</Text>
        <Text style={s.h1}>Surrik</Text>
        <Text style={s.h2}>Surrik</Text>
      </Page>
    </Document>,
  );
}
