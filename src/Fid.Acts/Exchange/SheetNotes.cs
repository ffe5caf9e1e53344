using System.Globalization;
using System.Text;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;

namespace Fid.Acts.Exchange;

/// <summary>Notes at the headers of a sheet. Spreadsheets keep the words in one part and, as drawings in VML, the places in another.</summary>
internal static class SheetNotes
{
    public static void Add(WorksheetPart sheet, IReadOnlyList<SheetColumn> columns)
    {
        var noted = columns.Select((c, i) => (Column: c, At: i)).Where(c => c.Column.Note.Length > 0).ToArray();
        if (noted.Length == 0)
            return;
        var comments = sheet.AddNewPart<WorksheetCommentsPart>();
        comments.Comments = new Comments(
            new Authors(new Author("Fid")),
            new CommentList(
                noted.Select(c => new Comment(new CommentText(new Run(new Text(c.Column.Note) { Space = SpaceProcessingModeValues.Preserve })))
                {
                    Reference = $"{SheetWriter.Letters(c.At + 1)}1",
                    AuthorId = 0,
                })
            )
        );
        var drawing = sheet.AddNewPart<VmlDrawingPart>();
        using (var stream = drawing.GetStream(FileMode.Create))
            stream.Write(Encoding.UTF8.GetBytes(Vml(noted.Select(c => c.At))));
        sheet.Worksheet!.Append(new LegacyDrawing { Id = sheet.GetIdOfPart(drawing) });
        sheet.Worksheet.Save();
    }

    private static string Vml(IEnumerable<int> columns)
    {
        var shapes = string.Concat(
            columns.Select(at =>
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"""
                    <v:shape id="_note{at}" type="#_note" style="position:absolute;visibility:hidden" fillcolor="#fffdf7" o:insetmode="auto">
                    <v:fill color2="#fffdf7"/><v:textbox><div style="text-align:left"></div></v:textbox>
                    <x:ClientData ObjectType="Note"><x:MoveWithCells/><x:SizeWithCells/><x:Anchor>{at + 1}, 8, 1, 4, {at
                        + 4}, 8, 6, 4</x:Anchor><x:AutoFill>False</x:AutoFill><x:Row>0</x:Row><x:Column>{at}</x:Column></x:ClientData>
                    </v:shape>
                    """
                )
            )
        );
        return $"""
            <xml xmlns:v="urn:schemas-microsoft-com:vml" xmlns:o="urn:schemas-microsoft-com:office:office" xmlns:x="urn:schemas-microsoft-com:office:excel">
            <v:shapetype id="_note" coordsize="21600,21600" o:spt="202" path="m,l,21600r21600,l21600,xe"><v:stroke joinstyle="miter"/><v:path
              gradientshapeok="t" o:connecttype="rect"/></v:shapetype>
            {shapes}
            </xml>
            """;
    }
}
