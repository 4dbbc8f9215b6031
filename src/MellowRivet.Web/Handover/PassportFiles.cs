using MellowRivet.Core;
using MellowRivet.Core.Passports;
using MellowRivet.Store;
using MellowRivet.Store.Files;
using MellowRivet.Store.Passports;
using MellowRivet.Store.Proof;

namespace MellowRivet.Web.Handover;

/// <summary>Aircraft's passports as files.</summary>
internal static class PassportFiles
{
    /// <summary>Writes one to a file: under another name until it is whole, and never over one that is there.</summary>
    public static async Task<PassportManifest> WriteAsync(RivetDb db, DataFolder data, TimeProvider clock, Guid aircraftId, string file,
        IProgress<PassportProgress>? progress, CancellationToken stop)
    {
        var half = $"{file}.half";
        try
        {
            PassportManifest manifest;
            await using (var to = new FileStream(half, FileMode.Create, FileAccess.ReadWrite, FileShare.None))
            {
                var papers = await PapersAsync(db, data, clock, aircraftId, stop);
                manifest = await new PassportWriter(db, data, clock).WriteAsync(aircraftId, to, papers, progress, stop);
                to.Flush(flushToDisk: true);
            }
            File.Move(half, file, overwrite: false);
            return manifest;
        }
        finally
        {
            File.Delete(half);
        }
    }

    /// <summary>Whether a file begins as a zip file does.</summary>
    public static async Task<bool> LooksLikeOneAsync(Stream content, CancellationToken stop)
    {
        var head = new byte[4];
        return await content.ReadAtLeastAsync(head, 4, throwOnEndOfStream: false, stop) == 4
            && head.AsSpan().SequenceEqual("PK\u0003\u0004"u8);
    }

    // What is read without any program: all signed records, those of other shops too, and each list of what was found with its pictures.
    private static async Task<IReadOnlyList<PassportPaper>> PapersAsync(RivetDb db, DataFolder data, TimeProvider clock, Guid aircraftId,
        CancellationToken stop)
    {
        var records = await db.RecordsOnAsync(aircraftId, stop);
        var head = await db.HeadAsync(stop);
        PhotoFiles photos = new(data, clock);
        List<PassportPaper> papers = [];
        if (records.Count > 0)
            papers.Add(new("signed-records.pdf", to =>
            {
                using var pdf = new RecordsPdf(Paper.A4, head);
                pdf.Write(to, records, "Signed records");
                return Task.CompletedTask;
            }));
        foreach (var (id, order) in await db.ListsOnAsync(aircraftId, stop))
            papers.Add(new($"found-{Plain(order)}.pdf", async to =>
            {
                if (await new Desk(db, clock, new WalkFeed()).JobAsync(id, stop) is not { } job)
                    return;
                using var pdf = new FixListPdf(photos, clock);
                pdf.Write(to, job);
            }));
        return [.. papers.DistinctBy(paper => paper.Name)];
    }

    private static string Plain(string order) =>
        new([.. order.Select(letter => char.IsAsciiLetterOrDigit(letter) ? letter : '-').Take(40)]);

    /// <summary>What a passport is called where it is kept: "N0TWQ-passport-2026-11-25.zip".</summary>
    public static string NameOf(PassportManifest manifest, TimeProvider clock) =>
        $"{Plain(manifest.Aircraft.Registration)}-passport-{clock.DayOf(manifest.MadeAt):yyyy-MM-dd}.zip";
}
