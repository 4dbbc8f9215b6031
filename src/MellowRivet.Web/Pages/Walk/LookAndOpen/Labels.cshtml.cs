using MellowRivet.Core.Inspections;
using MellowRivet.Store;
using MellowRivet.Web.Hosting;
using MellowRivet.Web.Pages.Shared;
using QRCoder;

namespace MellowRivet.Web.Pages.Walk.LookAndOpen;

/// <summary>The labels of the bags.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Host">The address of the shop, for the codes.</param>
public sealed record LabelsView(WalkShown Walk, string Host) : LookAndOpenView(Walk)
{
    /// <summary>The address that a label's code leads to.</summary>
    public string AddressOf(Tag tag) => $"{Host}/walk/{Id}/tags?tag={tag.Number}";

    /// <summary>A code as the path of its dark squares, one unit each, with the quiet edge it needs; and how wide it is.</summary>
    public static (string Path, int Width) Code(string text)
    {
        using var data = QRCodeGenerator.GenerateQrCode(text, QRCodeGenerator.ECCLevel.M);
        var rows = data.ModuleMatrix;
        var squares = rows.SelectMany((row, y) => Enumerable.Range(0, row.Count).Where(x => row[x]).Select(x => $"M{x} {y}h1v1h-1z"));
        return (string.Concat(squares), rows.Count);
    }
}

/// <summary>Labels for the bags, to print: number, words, and a code that leads to the tag.</summary>
public sealed class LabelsModel(Desk desk, RivetDb db, KeptFrames frames, RivetSettings settings) : LookPage<LabelsView>(desk, db, frames)
{
    protected override bool IsOfInspections => true;

    protected override Task<LabelsView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop) =>
        Task.FromResult<LabelsView?>(new(walk, settings.Address(Request)));
}
