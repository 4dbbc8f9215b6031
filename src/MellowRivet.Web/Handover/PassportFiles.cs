using MellowRivet.Core.Passports;
using MellowRivet.Store;
using MellowRivet.Store.Passports;

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
                manifest = await new PassportWriter(db, data, clock).WriteAsync(aircraftId, to, await PapersAsync(db, aircraftId, stop),
                    progress, stop);
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
    public static bool LooksLikeOne(string file)
    {
        using var content = File.OpenRead(file);
        Span<byte> head = stackalloc byte[4];
        return content.ReadAtLeast(head, 4, throwOnEndOfStream: false) == 4 && head.SequenceEqual("PK\u0003\u0004"u8);
    }

    // What is read without any program: all signed records, those of other shops too.
    private static async Task<IReadOnlyList<PassportPaper>> PapersAsync(RivetDb db, Guid aircraftId, CancellationToken stop)
    {
        var records = await db.RecordsOnAsync(aircraftId, stop);
        return records.Count == 0 ? []
            : [new("signed-records.pdf", to =>
            {
                using var pdf = new RecordsPdf(Paper.A4);
                pdf.Write(to, records, "Signed records");
            })];
    }
}
