using System.Text;
using System.Text.Json.Nodes;
using MellowRivet.Core.Records;
using SkiaSharp;

namespace MellowRivet.Web.Handover;

/// <summary>A size of paper, in millimetres.</summary>
public sealed record Paper(double Width, double Height)
{
    public static readonly Paper A4 = new(210, 297), Letter = new(215.9, 279.4);

    /// <summary>A sticker for a logbook is smaller than a page.</summary>
    public bool IsSticker => Width < 180;

    /// <summary>"a4", "letter", or a size such as "140x90"; null for none, or one that no printer has.</summary>
    public static Paper? Read(string? typed) => typed?.Trim().ToLowerInvariant() switch
    {
        "a4" => A4,
        "letter" => Letter,
        { } size when size.Split('x') is [var w, var h] && double.TryParse(w, out var width) && double.TryParse(h, out var height)
            && width is >= 60 and <= 420 && height is >= 40 and <= 420 => new(width, height),
        _ => null,
    };
}

/// <summary>
/// Signed records as a PDF with text that can be searched: for the archive, for a sheet or for stickers. A record that doesn't fit one
/// page breaks between its sentences, and its parts are numbered.
/// </summary>
public sealed class RecordsPdf : IDisposable
{
    private const float PointsPerMillimetre = 72 / 25.4f;
    private readonly SKTypeface plain = PdfFaces.Plain, bold = PdfFaces.Bold;
    private readonly SKPaint ink = new() { Color = SKColors.Black, IsAntialias = true };
    private readonly SKPaint soft = new() { Color = new SKColor(70, 78, 73), IsAntialias = true };
    private readonly SKPaint rule = new() { Color = SKColors.Black, IsStroke = true, StrokeWidth = 0.7f };
    private readonly float width, height, edge, size;
    private readonly string? note;
    private readonly ChainHead head;

    /// <param name="paper">The paper it is printed on.</param>
    /// <param name="head">How far the shop's chain is as this is printed: it stands under every record.</param>
    /// <param name="note">Said in the margin of every page; null for nothing.</param>
    public RecordsPdf(Paper paper, ChainHead head, string? note = null)
    {
        (this.note, this.head) = (note, head);
        (width, height) = ((float)paper.Width * PointsPerMillimetre, (float)paper.Height * PointsPerMillimetre);
        (edge, size) = paper.IsSticker ? (4 * PointsPerMillimetre, 7.2f) : (16 * PointsPerMillimetre, 10f);
    }

    public void Dispose()
    {
        ink.Dispose();
        soft.Dispose();
        rule.Dispose();
    }

    /// <summary>Writes records, each on pages of its own.</summary>
    public void Write(Stream to, IEnumerable<SignedRecord> records, string title)
    {
        PdfFile.Write(to, new() { Title = title, Producer = "Mellow Rivet" }, document =>
        {
            foreach (var record in records)
            {
                var (text, parts) = (record.Text(), PartsOf(record));
                foreach (var (index, blocks) in parts.Index())
                {
                    var canvas = document.BeginPage(width, height);
                    var y = Draw(canvas, HeadOf(text, index, parts.Count), edge);
                    foreach (var block in blocks)
                        y = Draw(canvas, block, y);
                    if (index == parts.Count - 1)
                        Sign(canvas, record, text);
                    else
                        Draw(canvas,
                            Block($"{record.Named} · {record.Hash[..16]} · goes on in part {index + 2} of {parts.Count}", plain,
                            size * 0.85f, soft), height - edge - size);
                    if (note is not null)
                        Draw(canvas, Block(note, plain, 6, soft), height - edge * 0.9f);
                    document.EndPage();
                }
            }
        });
    }

    /// <summary>A piece that isn't broken: its lines, indented under the first where it is numbered.</summary>
    private sealed record Piece(string[] Lines, SKTypeface Face, float Size, SKPaint Paint, string Number = "")
    {
        public float Leading => Size * 1.28f;
        public float Height => Lines.Length * Leading + Size * 0.25f;
    }

    private float Indent => size * 1.9f;

    // Sentence by sentence until a page is full; the statement stays with the signature.
    private List<List<Piece>> PartsOf(SignedRecord record)
    {
        var text = record.Text();
        var number = 0;
        List<Piece> all = [Block($"{text["extent"]}", plain, size, ink),
            .. text["work"]!.AsArray().Select(line => Block($"{line}", plain, size, ink, $"{++number}."))];
        var statement = Block($"{text["statement"]}", bold, size, ink);
        List<List<Piece>> parts = [[]];
        var head = HeadOf(text, 0, 2).Height;
        var room = height - 2 * edge - head;
        var left = room - size * 1.6f;
        foreach (var piece in all.SelectMany(piece => Cut(piece, room - size * 1.6f)))
        {
            if (piece.Height > left && parts[^1].Count > 0)
            {
                parts.Add([]);
                left = room - size * 1.6f;
            }
            parts[^1].Add(piece);
            left -= piece.Height;
        }
        var foot = FootOf(record, text).Sum(piece => piece.Height) + size * 1.8f;
        if (parts[^1].Sum(piece => piece.Height) + statement.Height + foot > room && parts[^1].Count > 0)
            parts.Add([]);
        parts[^1].Add(statement);
        return parts;
    }

    // A sentence that is longer than a whole page has to break within itself.
    private static IEnumerable<Piece> Cut(Piece piece, float room)
    {
        var most = Math.Max(1, (int)((room - piece.Size) / piece.Leading));
        return piece.Lines.Chunk(most).Select((lines, index) => piece with { Lines = lines, Number = index == 0 ? piece.Number : "" });
    }

    private Piece HeadOf(JsonObject text, int part, int parts)
    {
        var meta = $"{text["registration"]} · {text["type"]} · {text["item"]} s/n {text["serial"]} · {text["date"]} · time in service "
            + $"{text["timeInService"]}{(text["sinceOverhaul"] is { } since ? $" · since overhaul {since}" : "")} · WO {text["workOrder"]}";
        var title = $"{text["title"]}{(parts > 1 ? $", part {part + 1} of {parts}" : "")}";
        return Block($"{title} · {meta}", bold, size, ink);
    }

    private Piece Block(string text, SKTypeface face, float points, SKPaint paint, string number = "")
    {
        using var font = PdfFaces.Font(face, points);
        var column = width - 2 * edge - (number.Length > 0 ? Indent : 0);
        List<string> lines = [];
        var rest = PdfFaces.Readable(text, face).ReplaceLineEndings(" ").Trim();
        while (rest.Length > 0)
        {
            var fits = font.BreakText(rest, column);
            var at = fits >= rest.Length ? rest.Length : rest.LastIndexOf(' ', Math.Max(0, fits - 1)) is > 0 and var blank
                ? blank
                : Math.Max(1, fits);
            lines.Add(rest[..at]);
            rest = rest[at..].TrimStart();
        }
        return new([.. lines], face, points, paint, number);
    }

    private float Draw(SKCanvas canvas, Piece piece, float y)
    {
        using var font = PdfFaces.Font(piece.Face, piece.Size);
        if (piece.Number.Length > 0)
            canvas.DrawText(piece.Number, edge, y + piece.Leading, font, soft);
        foreach (var line in piece.Lines)
        {
            y += piece.Leading;
            canvas.DrawText(line, edge + (piece.Number.Length > 0 ? Indent : 0), y, font, piece.Paint);
        }
        return y + piece.Size * 0.25f;
    }

    // A pen signature goes over the line.
    private void Sign(SKCanvas canvas, SignedRecord record, JsonObject text)
    {
        var foot = FootOf(record, text);
        var y = height - edge - foot.Sum(piece => piece.Height) + size * 0.6f;
        canvas.DrawLine(edge, y, width - edge, y, rule);
        y -= size * 0.2f;
        foreach (var piece in foot)
            y = Draw(canvas, piece, y) - size * 0.2f;
    }

    // Whoever keeps the sheet finds out a chain that is written anew or cut later.
    private List<Piece> FootOf(SignedRecord record, JsonObject text) =>
    [
        Block($"{text["signedBy"]}, {text["certificate"]}", bold, size, ink),
        Block($"{record.Named} · {record.Hash[..16]} · {text["statementSource"]}", plain, size * 0.75f, soft),
        Block(RecordFoot.Of(record, head), plain, size * 0.62f, soft),
    ];
}

/// <summary>Where a PDF is written.</summary>
internal static class PdfFile
{
    /// <summary>
    /// Draws it in memory and then writes it: an exception of a stream that the drawing library calls by itself, as on a full disk or when
    /// whoever asked is gone, would end the whole program.
    /// </summary>
    public static void Write(Stream to, SKDocumentPdfMetadata about, Action<SKDocument> draw)
    {
        using var memory = new SKDynamicMemoryWStream();
        using (var document = SKDocument.CreatePdf(memory, about))
        {
            draw(document);
            document.Close();
        }
        using var written = memory.DetachAsData();
        written.SaveTo(to);
    }
}

/// <summary>The faces that ship with the product, for what is drawn on the server.</summary>
internal static class PdfFaces
{
    public static SKTypeface Plain { get; } = Of("b612-400.woff");
    public static SKTypeface Bold { get; } = Of("b612-700.woff");

    /// <summary>A font whose letters stand where their widths say: else a reader of the file finds blanks within words.</summary>
    public static SKFont Font(SKTypeface face, float size) =>
        new(face, size) { Subpixel = true, LinearMetrics = true, Hinting = SKFontHinting.None };

    /// <summary>A text with what the face has no letter for put in letters that it has: "1800 ohm" for "1800 Ω".</summary>
    public static string Readable(string text, SKTypeface face) => face.ContainsGlyphs(text) ? text
        : string.Concat(text.EnumerateRunes().Select(rune => face.ContainsGlyph(rune.Value) ? rune.ToString() : rune.Value switch
        {
            'Ω' => "ohm",
            'µ' or 'μ' => "u",
            '×' => "x",
            '≤' => "at most ",
            '≥' => "at least ",
            // What no face here has is named by its code, and not lost.
            _ => string.Concat(rune.ToString().Normalize(NormalizationForm.FormD).EnumerateRunes()
                .Where(part => face.ContainsGlyph(part.Value)).Select(part => part.ToString())) is { Length: > 0 } plain
                ? plain : $"[U+{rune.Value:X4}]",
        }));

    private static SKTypeface Of(string name) =>
        SKTypeface.FromStream(typeof(PdfFaces).Assembly.GetManifestResourceStream(name)) ?? SKTypeface.Default;
}
