// Prints the words of a PDF, one line a text item, and how large words are that are drawn: an independent reader of what we print.

import { readFileSync } from 'node:fs';
import { getDocument, OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';

const pdf = await getDocument({ data: new Uint8Array(readFileSync(process.argv[2])), verbosity: 0 }).promise;
for (let i = 1; i <= pdf.numPages; i++) {
  const page = await pdf.getPage(i);
  const content = await page.getTextContent();
  for (const item of content.items) if ('str' in item && item.str.trim()) console.log(item.str);
  const { fnArray, argsArray } = await page.getOperatorList();
  fnArray.forEach((what, at) => {
    if (what !== OPS.paintImageMaskXObject) return;
    const [{ width, height }] = argsArray[at];
    console.log(`drawn ${width} by ${height}`);
  });
}
