using MellowRivet.Core;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Surveys;
using MellowRivet.Store;
using MellowRivet.Store.Files;
using MellowRivet.Web.Drawings;
using SkiaSharp;

namespace MellowRivet.Web.Handover;

/// <summary>The fix list as a PDF with its photos, by class, on A4.</summary>
public sealed class FixListPdf : IDisposable
{
    private const float Width = 595, Height = 842, Edge = 45, Column = Width - 2 * Edge, PhotoWidth = 160;
    private readonly SKTypeface plain = PdfFaces.Plain, bold = PdfFaces.Bold;
    private readonly PhotoFiles photos;
    private readonly TimeProvider clock;
    private readonly SKPaint ink = new() { Color = new SKColor(27, 33, 29), IsAntialias = true };
    private readonly SKPaint soft = new() { Color = new SKColor(86, 97, 90), IsAntialias = true };
    private readonly SKPaint line = new() { Color = new SKColor(198, 204, 194), IsStroke = true, StrokeWidth = 0.7f };
    private SKDocument document = null!;
    private SKCanvas? canvas;
    private float y;
    private int page;
    private string foot = "";

    /// <param name="photos">Where the pictures are.</param>
    /// <param name="clock">The shop's time.</param>
    public FixListPdf(PhotoFiles photos, TimeProvider clock)
    {
        (this.photos, this.clock) = (photos, clock);
    }

    public void Dispose()
    {
        ink.Dispose();
        soft.Dispose();
        line.Dispose();
    }

    /// <summary>Writes the list of an inspection.</summary>
    public void Write(Stream to, Job job)
    {
        var inspection = job.Inspection;
        PdfFile.Write(to, new() { Title = $"{inspection.WorkOrder} fix list", Producer = "Mellow Rivet", RasterDpi = 150,
            EncodingQuality = 82 }, drawn =>
        {
            document = drawn;
            foot =
                $"{job.Aircraft.Registration} · {inspection.WorkOrder} · {clock.Today():yyyy-MM-dd} · found during the "
                + $"{inspection.Kind.InWords()}; {(inspection.IsSurvey ? SurveyWords.NoInspection : "not a signed record")}";
            Turn();
            Say($"{job.Aircraft.Registration}, {job.Aircraft.Type}, s/n {job.Aircraft.SerialNumber}", bold, 15, ink);
            Say(
                $"Fix list of the {inspection.Kind.InWords()} {inspection.WorkOrder}, begun {inspection.OpenedOn:yyyy-MM-dd} at "
                + $"{inspection.TimeInService} h", plain, 10, soft);
            var standing = inspection.Discrepancies.Where(found => found.Disposition != Disposition.Withdrawn);
            foreach (var group in FixListRules.WorstFirst(standing).GroupBy(found => found.Class).OrderBy(group => group.Key))
            {
                Room(60);
                y += 12;
                Say($"{char.ToUpperInvariant(group.Key.InWords()[0])}{group.Key.InWords()[1..]}: {group.Count()}", bold, 12, ink);
                Say(group.Key.Means(), plain, 8.5f, soft);
                foreach (var found in group)
                    Line(inspection, found);
            }
            if (inspection.Discrepancies.Count == 0)
                Say("Nothing found.", plain, 10, ink);
            End();
        });
    }

    private void Line(Inspection inspection, Discrepancy found)
    {
        var shown = found.Photos.Take(3).Select(photo => (photo, path: photos.PathOf(photo.Sha256, PhotoSize.Large)))
            .Where(pair => pair.path is not null).ToList();
        Room(shown.Count > 0 ? 170 : 50);
        y += 8;
        canvas!.DrawLine(Edge, y, Width - Edge, y, line);
        y += 4;
        Say($"{inspection.WorkOrder}-{found.Number:00}  {found.What}{(found.Grounded ? "  (grounded)" : "")}", bold, 9.5f, ink);
        Say(
            $"{inspection.ZoneTitle(found.ZoneKey)}{(found.Where.Length > 0 ? $", {found.Where}" : "")} · found {found.How.InWords()} "
            + $"{clock.Here(found.FoundAt):yyyy-MM-dd} · {found.Disposition.InWords()}", plain, 8.5f, soft);
        if (found.MeasuredWords is { } measured)
            Say($"Measured: {measured}", plain, 8.5f, ink);
        if (found.RestsOn.Length > 0)
            Say(found.RestsOn, plain, 8.5f, ink);
        if (found.CarriedNumber is { } left)
            Say($"Left open before, as {left}", plain, 8.5f, ink);
        foreach (var size in found.Photos.SelectMany(photo => photo.Measured))
            Say($"On the photo: {size.InWords}", plain, 8.5f, ink);
        if (found.Correction is { } done)
            Say($"{char.ToUpperInvariant(done.Kind.InWords()[0])}{done.Kind.InWords()[1..]}: {done.InWords}", plain, 8.5f, ink);
        if (found.Examination is { } examined)
            Say($"{examined.Method.InWords()}, {examined.On:yyyy-MM-dd}: {examined.Words}", plain, 8.5f, ink);
        if (shown.Count == 0)
            return;
        var tallest = shown.Max(pair => PhotoWidth * pair.photo.Height / pair.photo.Width);
        tallest = Math.Min(tallest, 200);
        Room(tallest + 8);
        y += 4;
        var x = Edge;
        foreach (var (photo, path) in shown)
        {
            using var picture = SKImage.FromEncodedData(path);
            var scale = Math.Min(PhotoWidth / photo.Width, 200f / photo.Height);
            canvas!.Save();
            canvas.Translate(x, y);
            canvas.Scale(scale);
            canvas.DrawImage(picture, new SKRect(0, 0, photo.Width, photo.Height),
                new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear));
            Annotations(photo);
            canvas.Restore();
            x += PhotoWidth + 10;
        }
        y += tallest;
    }

    private void Annotations(Photo photo)
    {
        using var under = new SKPaint
            { Color = SKColors.Black.WithAlpha(170), IsStroke = true, StrokeWidth = photo.Width / 100f, IsAntialias = true };
        using var over = new SKPaint { Color = SKColors.White, IsStroke = true, StrokeWidth = photo.Width / 200f, IsAntialias = true };
        using var words = new SKPaint { Color = SKColors.White, IsAntialias = true };
        using var font = PdfFaces.Font(bold, photo.Width / 26f);
        foreach (var annotation in AnnotationDrawing.Of(photo))
        {
            using var path = SKPath.ParseSvgPathData(annotation.Path);
            if (path is not null)
            {
                canvas!.DrawPath(path, under);
                canvas.DrawPath(path, over);
            }
            if (annotation.InFull is { } label)
            {
                var align = annotation.Rightward ? SKTextAlign.Left : SKTextAlign.Right;
                var (x, y) = ((float)annotation.At.X, (float)annotation.At.Y + font.Size * (annotation.Above ? -0.6f : 1.4f));
                canvas!.DrawText(label, x, y, align, font, under);
                canvas.DrawText(label, x, y, align, font, words);
            }
        }
    }

    // Words broken at blanks to the width of the column; a word longer than a line is cut.
    private void Say(string text, SKTypeface face, float size, SKPaint paint)
    {
        using var font = PdfFaces.Font(face, size);
        var rest = PdfFaces.Readable(text, face).ReplaceLineEndings(" ");
        while (rest.Length > 0)
        {
            var fits = font.BreakText(rest, Column);
            var at = fits >= rest.Length ? rest.Length : rest.LastIndexOf(' ', Math.Max(0, fits - 1)) is > 0 and var blank
                ? blank
                : Math.Max(1, fits);
            Room(size * 1.35f);
            y += size * 1.35f;
            canvas!.DrawText(rest[..at], Edge, y, font, paint);
            rest = rest[at..].TrimStart();
        }
    }

    private void Room(float needed)
    {
        if (y + needed > Height - Edge - 20)
            Turn();
    }

    private void Turn()
    {
        End();
        canvas = document.BeginPage(Width, Height);
        page++;
        y = Edge;
        using var font = PdfFaces.Font(plain, 7.5f);
        canvas.DrawText(foot, Edge, Height - Edge + 12, font, soft);
        canvas.DrawText($"{page}", Width - Edge - 10, Height - Edge + 12, font, soft);
    }

    private void End()
    {
        if (canvas is not null)
            document.EndPage();
        canvas = null;
    }
}
