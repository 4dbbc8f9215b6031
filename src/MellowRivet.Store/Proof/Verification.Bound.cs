using MellowRivet.Core.Amendments;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Records;

namespace MellowRivet.Store.Proof;

// The rows and files that signed records rest on, as they stood and as they stand.
public sealed partial class Verification
{
    private readonly Dictionary<BoundTable, IReadOnlyList<string>> columns = [];
    private readonly Dictionary<BoundEntries, ILookup<string, BoundRow>> entries = [];
    private readonly Dictionary<string, string?> files = [];

    // Inspections whose signature binds what it rests on; surveys that stayed with another shop.
    private readonly HashSet<Guid> bound = [], surveysElsewhere = [];

    // What signatures ended, and what they left open that isn't theirs any more.
    private readonly HashSet<string> ended = [];
    private readonly List<(string Item, string Order, string LeftBy)> leftOpen = [];

    private Dictionary<string, Evidence> evidence = [];

    private async Task BoundRowsHoldAsync(List<SignedRecord> records, CancellationToken stop)
    {
        Dictionary<Guid, Inspected> inspections = [];
        foreach (var row in await RawRows.ReadAsync(db, """SELECT "Id", "WorkOrder", "State", "Kind" FROM "Inspections" """, [], stop))
            inspections[IdOf(row[0])] = new($"{row[1]}", $"{row[2]}", $"{row[3]}");
        foreach (var table in BoundTable.OfInspection)
            columns[table] = await table.ColumnsAsync(db, stop);
        foreach (var list in BoundEntries.All)
            entries[list] = await list.RowsAsync(db, null, stop);
        foreach (var signed in records.Where(record => record.EvidenceHash is not null).GroupBy(record => record.EvidenceHash!))
        {
            var record = signed.First();
            if (!evidence.TryGetValue(signed.Key, out var rests) || !rests.IsWhole || rests.InspectionId != record.InspectionId
                || rests.AircraftId != record.AircraftId)
            {
                Add($"what {record.Named} rests on is gone, or was altered");
                continue;
            }
            await HoldAsync(rests, record,
                inspections.TryGetValue(rests.InspectionId, out var of) ? of.Order : "an inspection that is gone", stop);
        }
        await OpenItemsHoldAsync(inspections, stop);
        StatesHold(records, inspections);
    }

    private sealed record Inspected(string Order, string State, string Kind);

    private async Task HoldAsync(Evidence rests, SignedRecord record, string order, CancellationToken stop)
    {
        var parts = rests.Parts();
        var closes = parts.ContainsKey("inspections");
        if (closes)
            bound.Add(rests.InspectionId);
        BoundTo to = new(rests.AircraftId, rests.InspectionId, closes ? order : $"record {record.Number}");
        foreach (var (name, part) in parts)
            if (BoundEntries.All.FirstOrDefault(list => list.Name == name) is { } list)
                Entries(list, part, order, record);
            else if (BoundTable.Named(name) is { } table && !part.Columns.Except(table.Only.Length > 0 ? table.Only : columns[table]).Any())
                Rows(table, part, await table.RowsAsync(db, part.Columns, to, stop), order, record);
            else
                Add($"{order}: what was signed of its {name} can't be held against what is there: it has other columns now");
        foreach (var sha in rests.Files())
        {
            if (!files.TryGetValue(sha, out var fault))
                files[sha] = fault = fileFault(sha);
            if (fault is not null)
                Add($"{order}: {fault}");
        }
    }

    private void Rows(BoundTable table, EvidencePart part, IReadOnlyList<BoundRow> there, string order, SignedRecord record)
    {
        var gone = part.Digests.Except(there.Select(row => row.Digest)).ToHashSet();
        var other = there.ExceptBy(part.Digests, row => row.Digest).ToList();
        if (table == BoundTable.Ended)
        {
            ended.UnionWith(part.Digests);
            if (gone.Count > 0)
                Add($"{order}: an open item that {record.Named} ended doesn't stand as it was ended");
            return;
        }
        if (table == BoundTable.OpenItems)
        {
            // One that isn't this inspection's any more is bound by whatever looked at it later.
            foreach (var row in other)
                if (gone.RemoveWhere(digest => digest.StartsWith(row.Id, StringComparison.Ordinal)) > 0)
                    Add($"{order}: open item {row.Words} isn't as it was signed");
            leftOpen.AddRange(gone.Select(digest => (ItemOf(digest), order, record.Named)));
            return;
        }
        var left = gone.Count;
        foreach (var row in other)
        {
            left--;
            if (IsPutRight(table, row, record))
                Count(table == BoundTable.Readings
                    ? "readings put right in the open since they were signed"
                    : "readings whose hours were reckoned anew, by a meter put right in the open");
            else
                Add($"{order}: the {table.One} {Short(row.Words)} "
                    + $"{(left < 0 ? "was added since it was signed" : "isn't as it was signed")}");
        }
        if (left > 0)
            Add($"{order}: {(left == 1 ? $"a {table.One}" : $"{left} {table.One}s")} that {(left == 1 ? "was" : "were")} signed "
                + $"{(left == 1 ? "is" : "are")} gone");
    }

    // A value that was put right stands struck in the file, with who, when and why, and the record's page says so.
    private bool IsPutRight(BoundTable table, BoundRow row, SignedRecord record) => table == BoundTable.Readings
        ? amendments[IdOf(row.Id)].Any(one => Since(one, AmendmentOf.Reading, record))
        : table == BoundTable.ReadingHours && IsReckoned(record);

    // A meter that was put right takes the hours along that rested on it.
    private bool IsReckoned(SignedRecord record) => amendments.SelectMany(of => of)
        .Any(one => one.AircraftId == record.AircraftId && Since(one, AmendmentOf.Meter, record));

    private bool Since(Amendment one, AmendmentOf of, SignedRecord record) => one.Of == of && one.At >= record.SignedAt && Holds(one);

    private void Entries(BoundEntries list, EvidencePart part, string order, SignedRecord record)
    {
        var there = entries[list][order].Select(row => row.Digest).ToHashSet();
        foreach (var gone in part.Digests.Where(digest => !there.Contains(digest)))
        {
            var item = IdOf(ItemOf(gone));
            if (amendments[item].Any(one => Since(one, AmendmentOf.Due, record)) || IsReckoned(record))
                Count("times that something was done, put right in the open since they were signed");
            // What hangs on a part that went elsewhere doesn't travel with the aircraft.
            else if (!record.IsElsewhere || entries[list].SelectMany(of => of).Any(row => IdOf(row.Id) == item))
                Add($"{order}: a {list.One} doesn't stand as it was signed");
        }
    }

    private async Task OpenItemsHoldAsync(Dictionary<Guid, Inspected> inspections, CancellationToken stop)
    {
        var items = (await RawRows.ReadAsync(db,
            """SELECT "Id", "FirstNumber", "InspectionId", "DiscrepancyId", "AircraftId", "End" FROM "OpenItems" """, [], stop))
            .ToDictionary(row => $"{row[0]}");
        foreach (var (id, order, leftBy) in leftOpen)
            if (!items.TryGetValue(id, out var row))
                Add($"{order}: an open item that {leftBy} left open is gone");
            else if (!LookedAt(IdOf(row[2])))
                Add($"{order}: open item {row[1]} was taken off it");
        foreach (var row in items.Values.Where(row => row[5] is not null && bound.Contains(IdOf(row[2]))))
            if (!ended.Contains($"{row[0]} {Evidence.DigestOf([row[0], row[4], row[5]])}")
                && !amendments[IdOf(row[3])].Any(Holds))
                Add($"open item {row[1]} was ended by no signature");

        // By a signature that binds it, or by a survey, of which nothing is signed.
        bool LookedAt(Guid inspection) => bound.Contains(inspection) || surveysElsewhere.Contains(inspection)
            || (inspections.TryGetValue(inspection, out var of) && of.Kind == nameof(InspectionKind.Survey));
    }

    // A state that was set back, or forward; a signed inspection without its record.
    private void StatesHold(List<SignedRecord> records, Dictionary<Guid, Inspected> inspections)
    {
        var said = records.Where(record => record.OwnFault() is null && record.Book != Book.DiscrepancyList
            && record.Text()["airworthy"] is not null).ToLookup(record => record.InspectionId, record =>
            $"{record.Text()["airworthy"]}" == "true"
                ? nameof(InspectionState.SignedAirworthy)
                : nameof(InspectionState.SignedUnairworthy));
        foreach (var (id, inspection) in inspections)
            if (said[id].FirstOrDefault() is not { } signed)
            {
                if (inspection.State.StartsWith("Signed", StringComparison.Ordinal))
                    Add($"{inspection.Order} stands as signed, and no record says so");
            }
            else if (signed != inspection.State)
                Add($"{inspection.Order} was signed, and its state was set to another since");
            else if (!bound.Contains(id))
                Count("inspections signed before records bound what they rest on");
        foreach (var gone in said.Where(of => !inspections.ContainsKey(of.Key)))
            Add("an inspection that was signed is gone");
    }

    // One that was altered to be none is nobody's.
    private static Guid IdOf(object? stored) => Guid.TryParse($"{stored}", out var id) ? id : Guid.Empty;

    private static string ItemOf(string digest) => digest.Split(' ')[0];
}
