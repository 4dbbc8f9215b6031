using System.Globalization;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;

namespace MellowRivet.Core.OpenItems;

/// <summary>Why something stays open on an aircraft, worst first.</summary>
public enum OpenBecause { Airworthiness = 1, Deferred, Declined, Recommended, Watch }

/// <summary>How an open item came to its end.</summary>
/// <param name="Words">What was done or found.</param>
/// <param name="On">The day.</param>
/// <param name="By">Who.</param>
/// <param name="Reference">The work order of the inspection that settled it, or the record that cleared it: "record 214".</param>
public sealed record OpenItemEnd(string Words, DateOnly On, Guid By, string Reference);

/// <summary>
/// What an inspection left open. It belongs to the aircraft, not to that inspection: it stays until an entry of its own clears it,
/// or a later inspection settles it (14 CFR 43.11(b), 91.405(c), from memory).
/// </summary>
public sealed class OpenItem
{
    private List<DeferralAnswer> deferral = [];
    private List<Photo> photos = [];

    private OpenItem() { }

    /// <param name="aircraftId">The aircraft.</param>
    /// <param name="inspection">The inspection that leaves it open.</param>
    /// <param name="found">The discrepancy.</param>
    /// <param name="on">The day it was signed.</param>
    public OpenItem(Guid aircraftId, Inspection inspection, Discrepancy found, DateOnly on)
    {
        Id = Guid.CreateVersion7();
        AircraftId = aircraftId;
        Since = on;
        FirstNumber = $"{inspection.WorkOrder}-{found.Number:00}";
        (FoundBy, FoundAt) = (found.FoundBy, found.FoundAt);
        Take(inspection, found, on);
    }

    /// <summary>What a signature rested on, put right since, is bad as it stands: nobody saw that when it was signed.</summary>
    /// <param name="inspection">The inspection that was signed on it.</param>
    /// <param name="judged">The judgement of the value as it stands now.</param>
    /// <param name="reading">The value.</param>
    /// <param name="number">The how manieth of that inspection, from 1.</param>
    /// <param name="by">Who put it right, and when.</param>
    /// <param name="on">The day.</param>
    public OpenItem(Inspection inspection, Judged judged, Guid reading, int number, WhoSet by, DateOnly on)
    {
        (Id, AircraftId, InspectionId, DiscrepancyId) = (Guid.CreateVersion7(), inspection.AircraftId, inspection.Id, reading);
        (FirstNumber, Since, LookedOn, FoundBy, FoundAt) = (NumberSincePutRight(inspection, number), on, on, by.By, by.At);
        Number = FirstNumber;
        var what = $"{judged.What}: {judged.Saw}";
        What = what.Length > Discrepancy.LongestWords ? what[..Discrepancy.LongestWords] : what;
        (ZoneKey, ZoneTitle, Where) = (judged.Where.ZoneKey, inspection.ZoneTitle(judged.Where.ZoneKey), judged.Place);
        (ComponentId, Book, Origin) = (judged.ComponentId, inspection.BookOf(judged.Where.ZoneKey), judged.Origin);
        (Class, Because) = (DiscrepancyClass.Airworthiness, OpenBecause.Airworthiness);
    }

    /// <summary>What was said of an inspection before it was signed, and arrived after: its signature rests on nothing of it.</summary>
    /// <param name="inspection">The inspection.</param>
    /// <param name="late">What was said.</param>
    /// <param name="guess">What its words speak for.</param>
    /// <param name="number">The how manieth of that inspection, from 1.</param>
    /// <param name="on">The day it arrived.</param>
    public OpenItem(Inspection inspection, LateWord late, ClassGuess guess, int number, DateOnly on)
    {
        (Id, AircraftId, InspectionId, DiscrepancyId) = (Guid.CreateVersion7(), inspection.AircraftId, inspection.Id, late.Post);
        (FirstNumber, Since, LookedOn, FoundBy, FoundAt) = (NumberSinceSigned(inspection, number), on, on, late.By, late.At);
        (Number, What, photos) = (FirstNumber, late.InWords, [.. late.Photos]);
        ZoneKey = late.ZoneKey is { } zone && inspection.HasZone(zone) ? zone
            : inspection.Tasks.OrderBy(task => task.Order).FirstOrDefault()?.ZoneKey ?? "";
        (ZoneTitle, Book) = (inspection.ZoneTitle(ZoneKey), inspection.BookOf(ZoneKey));
        // Of what was found or measured nobody has said that it is less; a good look is none the less to be looked at.
        var isUnsafe = !late.IsCalm && guess.Class == DiscrepancyClass.Airworthiness;
        (Class, Because) = isUnsafe ? (DiscrepancyClass.Airworthiness, OpenBecause.Airworthiness)
            : (DiscrepancyClass.Recommended, OpenBecause.Recommended);
        Origin = isUnsafe
            ? new($"late/{Id:N}", $"Said before {inspection.WorkOrder} was signed, and arrived after: an airworthiness item by its words",
                Verdict.Reject, new(Standing.Practice, "common practice"))
            : null;
    }

    /// <summary>Where a discrepancy's number has its own: "26-031-L1", said before the signature; null for how they begin.</summary>
    public static string NumberSinceSigned(Inspection inspection, int? number) => $"{inspection.WorkOrder}-L{number}";

    /// <summary>Where a discrepancy's number has its own: "26-031-R1", a reading that was put right; null for how they begin.</summary>
    public static string NumberSincePutRight(Inspection inspection, int? number) => $"{inspection.WorkOrder}-R{number}";

    public Guid Id { get; private set; }
    public Guid AircraftId { get; private set; }

    /// <summary>The inspection that looked at it last, and its discrepancy there, or the value that was put right.</summary>
    public Guid InspectionId { get; private set; }
    public Guid DiscrepancyId { get; private set; }

    /// <summary>Its number where it was first left open, "26-031-07": it keeps that.</summary>
    public string FirstNumber { get; private set; } = "";

    /// <summary>Its number at the inspection that looked at it last.</summary>
    public string Number { get; private set; } = "";

    /// <summary>Its number on the fix list of that inspection; null where it stood on none.</summary>
    public int? OnFixList => int.TryParse(Number[(Number.LastIndexOf('-') + 1)..], NumberStyles.None, CultureInfo.InvariantCulture,
        out var number) ? number : null;

    /// <summary>The day it was first left open.</summary>
    public DateOnly Since { get; private set; }

    /// <summary>Who found it at first, and when.</summary>
    public Guid FoundBy { get; private set; }
    public DateTimeOffset FoundAt { get; private set; }

    /// <summary>The day of the last signature that left it open.</summary>
    public DateOnly LookedOn { get; private set; }
    public string What { get; private set; } = "";
    public string ZoneKey { get; private set; } = "";
    public string ZoneTitle { get; private set; } = "";
    public string Where { get; private set; } = "";
    public Guid? ComponentId { get; private set; }
    public Pin? Pin { get; private set; }
    public Book Book { get; private set; }
    public DiscrepancyClass Class { get; private set; }
    public OpenBecause Because { get; private set; }

    /// <summary>Safety of flight.</summary>
    public bool Grounded { get; private set; }

    /// <summary>The judgement it was born from; null for none.</summary>
    public Origin? Origin { get; private set; }

    /// <summary>
    /// What its class rests on at the next inspection: its judgement; else, for an airworthiness item, that a signed list named it.
    /// </summary>
    public Origin? Floor => Origin ?? (Because == OpenBecause.Airworthiness
        ? new($"open/{Id:N}", $"On the signed list of {Since:yyyy-MM-dd} as {FirstNumber}, an airworthiness item", Verdict.Reject,
            new(Standing.Practice, "the list was signed: common practice"))
        : null);

    /// <summary>How it was deactivated and placarded; empty for what isn't deferred.</summary>
    public string Placarded { get; private set; } = "";
    public IReadOnlyList<DeferralAnswer> Deferral => deferral;
    public IReadOnlyList<Photo> Photos => photos;

    /// <summary>What it is expected to take; null where nobody has said.</summary>
    public Estimate? Estimate { get; private set; }

    /// <summary>The price that the owner agreed to: it stays with it until it is put right. Null for none.</summary>
    public AgreedPrice? Agreed { get; private set; }

    /// <summary>How it ended; null while it is open.</summary>
    public OpenItemEnd? End { get; private set; }

    public bool IsOpen => End is null;

    /// <summary>Counts changes, so that two people can't clear it at once.</summary>
    public int Changes { get; private set; }

    /// <summary>Whether a discrepancy stays with the aircraft once its inspection is signed; known marks have their own way.</summary>
    public static bool Leaves(Discrepancy found) => found.Class != DiscrepancyClass.KnownMark && (found.IsOpen || found.IsDeferred);

    /// <summary>Takes over how it stands at a later inspection.</summary>
    public void Take(Inspection inspection, Discrepancy found, DateOnly on)
    {
        (InspectionId, DiscrepancyId, Number, LookedOn) = (inspection.Id, found.Id, $"{inspection.WorkOrder}-{found.Number:00}", on);
        (What, ZoneKey, ZoneTitle, Where, ComponentId, Pin) = (found.What, found.ZoneKey, inspection.ZoneTitle(found.ZoneKey), found.Where,
            found.ComponentId, found.Pin);
        (Book, Class, Grounded, Origin) = (inspection.BookOf(found.ZoneKey), found.Class, found.Grounded, found.Origin);
        Because = found.IsDeferred ? OpenBecause.Deferred
            : found.Class == DiscrepancyClass.Airworthiness ? OpenBecause.Airworthiness
            : found.Disposition == Disposition.Declined ? OpenBecause.Declined
            : found.Class == DiscrepancyClass.Watch ? OpenBecause.Watch : OpenBecause.Recommended;
        Placarded = found.IsDeferred ? found.Correction!.Action : "";
        deferral = [.. found.Deferral.Answers];
        photos = [.. found.Photos];
        // A deferred one was worked on and is paid for: what it takes to put right nobody has said.
        // The lines that it had to come after are numbers of this list; on the next one they are other lines.
        var takes = found.Estimate is { After: not null } tied ? tied with { After = null } : found.Estimate;
        (Estimate, Agreed) = found.IsDeferred ? (null, null)
            : (takes, found.IsAgreed() && found.Agreed!.IsOwners ? found.Agreed : null);
        Changes++;
    }

    /// <summary>The aircraft is somebody else's: what its owner agreed to binds nobody any more.</summary>
    public void ChangesHands()
    {
        Agreed = null;
        Changes++;
    }

    /// <summary>Ends it.</summary>
    public void Close(OpenItemEnd end)
    {
        End = end;
        Changes++;
    }
}

/// <summary>What signing an inspection, or buying what was surveyed, does to the aircraft's open items.</summary>
public static class OpenItemsAfter
{
    /// <summary>Settles, keeps and adds: what was carried in is ended or taken over, what was newly left open is added.</summary>
    /// <param name="inspection">The inspection that is signed.</param>
    /// <param name="open">The aircraft's items that are open.</param>
    /// <param name="by">Who signs.</param>
    /// <param name="on">The day.</param>
    /// <returns>Those that are new.</returns>
    public static IReadOnlyList<OpenItem> Signing(Inspection inspection, IReadOnlyCollection<OpenItem> open, Guid by, DateOnly on)
    {
        var carried = inspection.Discrepancies.Where(found => found.CarriedFrom is not null).GroupBy(found => found.CarriedFrom!.Value)
            .ToDictionary(group => group.Key, group => group.First());
        foreach (var item in open)
            if (carried.TryGetValue(item.Id, out var found))
                if (OpenItem.Leaves(found))
                    item.Take(inspection, found, on);
                else
                    item.Close(new(found.Correction?.InWords ?? (found.Steps is [.., { To: Disposition.Withdrawn } last] ? last.Words
                        : null)
                        ?? found.Class.InWords(), on, found.CorrectedBy ?? by, inspection.WorkOrder));
        return [.. inspection.Discrepancies.Where(found => OpenItem.Leaves(found)
            && (found.CarriedFrom is not { } from || open.All(item => item.Id != from))).OrderBy(found => found.Number)
            .Select(found => new OpenItem(inspection.AircraftId, inspection, found, on))];
    }

    /// <summary>
    /// The buyer of what was surveyed bought it. Nobody signs a survey: it ends no item and makes none milder, and what an inspection said
    /// since goes before it. What it found is added.
    /// </summary>
    /// <inheritdoc cref="Signing"/>
    public static IReadOnlyList<OpenItem> Buying(Inspection inspection, IReadOnlyCollection<OpenItem> open, DateOnly on)
    {
        foreach (var item in open)
        {
            if (inspection.Discrepancies.FirstOrDefault(found => found.CarriedFrom == item.Id) is { } found && OpenItem.Leaves(found)
                && (found.Class < item.Class || (found.Grounded && !item.Grounded)))
                item.Take(inspection, found, on);
            item.ChangesHands();
        }
        return [.. inspection.Discrepancies.Where(found => OpenItem.Leaves(found) && found.CarriedFrom is null)
            .OrderBy(found => found.Number).Select(found => new OpenItem(inspection.AircraftId, inspection, found, on))];
    }
}

public static class OpenItemWords
{
    public static string InWords(this OpenBecause because) => because switch
    {
        OpenBecause.Deferred => "deferred, placarded",
        OpenBecause.Declined => "declined by the owner",
        OpenBecause.Recommended => "recommended, not done",
        OpenBecause.Watch => "watched",
        _ => "airworthiness",
    };
}
