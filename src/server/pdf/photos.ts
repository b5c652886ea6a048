import { type Sheet, SOFT } from "./sheet";

export type PrintedPhoto = { readonly bytes: Buffer; readonly caption: string };

/** Photos two in a row, each read as a figure by its caption, with how many more there are. */
export function photoGrid(sheet: Sheet, photos: readonly PrintedPhoto[], more: number): void {
  if (photos.length === 0) return;
  sheet.space(0.4).section("Photos");
  const { doc, left, width } = sheet;
  const box: [number, number] = [(width - 16) / 2, 170];
  for (let i = 0; i < photos.length; i += 2) {
    sheet.room(box[1] + 34);
    const top = doc.y;
    for (const [k, photo] of photos.slice(i, i + 2).entries()) {
      const x = left + k * (box[0] + 16);
      sheet.as(
        "Figure",
        () => doc.image(photo.bytes, x, top, { fit: box, align: "center", valign: "center" }),
        photo.caption,
      );
      sheet.as("P", () =>
        doc
          .font("regular")
          .fontSize(8)
          .fillColor(SOFT)
          .text(photo.caption, x, top + box[1] + 4, { width: box[0] }),
      );
    }
    doc.x = left;
    doc.y = top + box[1] + 30;
  }
  if (more > 0) sheet.line(`${more} more on record.`, { soft: true });
}
