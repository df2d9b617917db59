import { recordSheets, type RecordSection } from '@tactron/core/printed';

/** The workbook as a file. */
export async function recordWorkbook(sections: readonly RecordSection[]): Promise<Blob> {
  const { default: write } = await import('write-excel-file/universal');
  return write(recordSheets(sections)).toBlob();
}
