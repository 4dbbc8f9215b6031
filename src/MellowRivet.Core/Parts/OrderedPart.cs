using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;

namespace MellowRivet.Core.Parts;

/// <summary>Something the shop needs, has ordered or has got, until it is fitted or sent back.</summary>
public sealed class OrderedPart
{
    public const int LongestWords = 120;

    /// <summary>Most of one part that is ordered at once.</summary>
    public const decimal MostQuantity = 10_000;

    private List<Receipt> receipts = [];
    private List<TakenOut> fitted = [];
    private List<TakenOut> sentBack = [];

    private OrderedPart() { }

    /// <param name="id">Its id.</param>
    /// <param name="what">What it is.</param>
    /// <param name="number">Its part number; may be empty.</param>
    /// <param name="quantity">How many, or how much.</param>
    /// <param name="unit">Of what; empty for pieces.</param>
    /// <param name="for">What it is for.</param>
    public OrderedPart(Guid id, string what, string number, decimal quantity, string unit, PartFor @for)
    {
        (Id, What, Number, Quantity, Unit) = (id, what.Trim(), number.Trim(), quantity, unit.Trim());
        (AircraftId, InspectionId, Key) = @for;
    }

    public Guid Id { get; private set; }
    public string What { get; private set; } = "";
    public string Number { get; private set; } = "";
    public decimal Quantity { get; private set; }
    public string Unit { get; private set; } = "";
    public Guid? AircraftId { get; private set; }
    public Guid? InspectionId { get; private set; }
    public string Key { get; private set; } = "";

    /// <summary>Who was asked, or delivers it; empty until somebody was.</summary>
    public string Supplier { get; private set; } = "";

    /// <summary>What one costs; null where nobody has said.</summary>
    public decimal? Price { get; private set; }
    public DateOnly? AskedOn { get; private set; }
    public DateOnly? OrderedOn { get; private set; }

    /// <summary>The day it is expected; null where nobody has said.</summary>
    public DateOnly? ExpectedOn { get; private set; }

    /// <summary>The core that is owed for it; null for none.</summary>
    public CoreOwed? Core { get; private set; }

    /// <summary>
    /// Why it needs no trace; null where it does, as every part of a certificated aircraft does until somebody says otherwise.
    /// </summary>
    public NeedsNoTrace? NoTrace { get; private set; }

    /// <summary>Counts changes, so that two people's edits can't overwrite each other unseen.</summary>
    public int Changes { get; private set; }

    public IReadOnlyList<Receipt> Receipts => receipts;
    public IReadOnlyList<TakenOut> Fitted => fitted;
    public IReadOnlyList<TakenOut> SentBack => sentBack;

    public decimal Came => receipts.Sum(receipt => receipt.Quantity);

    /// <summary>What of a receipt lies here still.</summary>
    public decimal LeftOf(Receipt receipt) =>
        receipt.Quantity - fitted.Concat(sentBack).Where(taken => taken.ReceiptId == receipt.Id).Sum(taken => taken.Quantity);

    public PartState State
    {
        get
        {
            var (back, on) = (sentBack.Sum(taken => taken.Quantity), fitted.Sum(taken => taken.Quantity));
            return Came > 0 && Came == back ? PartState.SentBack
                : on > 0 && on + back >= Quantity ? PartState.Fitted
                : Came - back > on ? PartState.Received
                : OrderedOn is not null ? PartState.Ordered
                : AskedOn is not null ? PartState.Asked
                : PartState.Needed;
        }
    }

    /// <summary>Not all of it has come by the day it was expected.</summary>
    public bool IsLate(DateOnly today) => OrderedOn is not null && Came < Quantity && ExpectedOn < today;

    public bool CoreIsOwed => Core is { SentOn: null } && Came > 0;

    /// <summary>It is through: fitted or sent back, and no core is owed for it.</summary>
    public bool IsThrough => State is PartState.Fitted or PartState.SentBack && !CoreIsOwed;

    /// <summary>How many of what: "8 × gasket, MS-18".</summary>
    public string InWords => $"{Quantity:0.##} {(Unit.Length > 0 ? Unit : "×")} {What}{(Number.Length > 0 ? $", {Number}" : "")}";

    /// <summary>What is wrong with a part as typed; null where it can go on the list.</summary>
    public static Refusal? Check(string? what, string? number, decimal quantity, string? unit) =>
        string.IsNullOrWhiteSpace(what) || what.Trim().Length > LongestWords || number?.Trim().Length > LongestWords
            || unit?.Trim().Length > 10
            ? new("what", $"Say what part it is, in up to {LongestWords} characters.")
            : quantity is <= 0 or > MostQuantity ? new("quantity", $"How many, above 0 and up to {MostQuantity:#,0}.") : null;

    /// <summary>A supplier was asked, or it was ordered. A later word takes the place of an earlier one until all of it has come.</summary>
    /// <param name="order">It is ordered; false where the supplier was only asked.</param>
    /// <param name="supplier">From whom.</param>
    /// <param name="price">What one costs; null where nobody has said.</param>
    /// <param name="expected">The day it is expected.</param>
    /// <param name="core">The supplier wants the old one back.</param>
    /// <param name="today">The day.</param>
    public Refusal? From(bool order, string? supplier, decimal? price, DateOnly? expected, bool core, DateOnly today)
    {
        if (string.IsNullOrWhiteSpace(supplier) || supplier.Trim().Length > LongestWords)
            return new("supplier", $"{InWords}: from whom, in up to {LongestWords} characters.");
        if (Came >= Quantity)
            return new("supplier", $"{InWords}: all of it has come.");
        if (price is < 0 or >= Estimates.Estimate.MostPrice)
            return new("price", $"{InWords}: a price from 0 up, below {Estimates.Estimate.MostPrice:#,0}.");
        if (expected < (OrderedOn ?? today) && expected < today)
            return new("expected", $"{InWords}: {expected:yyyy-MM-dd} is gone by.");
        if (!order && OrderedOn is not null)
            return new("supplier", $"{InWords}: it is ordered already, on {OrderedOn:yyyy-MM-dd}.");
        (Supplier, Price, ExpectedOn) = (supplier.Trim(), price ?? Price, expected ?? ExpectedOn);
        if (order)
            OrderedOn ??= today;
        else
            AskedOn ??= today;
        if (core)
            Core ??= new(null);
        Changes++;
        return null;
    }

    /// <summary>Some or all of it has come.</summary>
    public Refusal? Receive(Receipt receipt)
    {
        if (receipts.Exists(other => other.Id == receipt.Id))
            return null;
        if (receipt.Quantity is <= 0 or > MostQuantity)
            return new("received", "How many have come, above 0.");
        if (Came + receipt.Quantity > Quantity)
            return new("received", Came >= Quantity
                ? $"All {Quantity:0.##} have come already: received twice?"
                : $"{Quantity:0.##} are wanted and {Came:0.##} have come: {receipt.Quantity:0.##} more are too many.");
        if (!Enum.IsDefined(receipt.Condition))
            return new("received", "In what condition did it come?");
        if (receipt.Trace.Length > LongestWords || receipt.Batch.Length > LongestWords)
            return new("received", $"Tag and batch in up to {LongestWords} characters each.");
        if (receipt.ShelfLife is { Year: < 1990 or > 2199 })
            return new("received", "The shelf life ends on a day from 1990 to 2199.");
        receipts = [.. receipts, receipt];
        Changes++;
        return null;
    }

    /// <summary>Why what came can't be fitted on a day; null where it can.</summary>
    public Refusal? MayFit(Receipt receipt, DateOnly today) =>
        receipt.ShelfLife < today
            ? new("fit", $"Its shelf life ended on {receipt.ShelfLife:yyyy-MM-dd}: it isn’t fitted any more.")
        : receipt.Condition == PartCondition.AsRemoved
            ? new("fit", "It came as it was removed, not inspected and not released: it isn’t fitted so.")
        : NoTrace is null && receipt.Trace.Length == 0
            ? new("fit", "It came without a tag or certificate: what is fitted to a certificated aircraft needs one. "
                + "Somebody who may inspect can say that it is a standard part or material that needs none.")
        : null;

    /// <summary>Some of what came goes into the aircraft.</summary>
    public Refusal? Fit(TakenOut taken, DateOnly today)
    {
        if (receipts.Find(one => one.Id == taken.ReceiptId) is not { } receipt)
            return new("fit", "Choose which of it: nothing like that has come.");
        if (Take(receipt, taken, "fit", "fitted") is { } refusal)
            return refusal;
        if (MayFit(receipt, today) is { } not)
            return not;
        if (taken.Serial.Length > Correction.LongestNumber || taken.SerialOff.Length > Correction.LongestNumber)
            return new("fit", $"Serial numbers in up to {Correction.LongestNumber} characters.");
        if (taken.Replaced is not null && Number.Length == 0)
            return new("fit", "What goes into the aircraft’s file needs its part number: it has none on this list.");
        fitted = [.. fitted, taken];
        Changes++;
        return null;
    }

    /// <summary>Some of what came takes the place of a part in the aircraft's file, or goes in without one; both or neither.</summary>
    /// <param name="aircraft">The aircraft with its parts; null for none.</param>
    /// <param name="taken">What is fitted.</param>
    /// <param name="today">The day.</param>
    public Refusal? FitInto(Aircraft? aircraft, TakenOut taken, DateOnly today)
    {
        if (taken.Replaced is not { } off)
            return Fit(taken, today);
        if (aircraft?.Fitting(off) is not { } old)
            return new("fit", "What it would take the place of is not on this aircraft.");
        var words = $"{What}: fitted from the parts list";
        return Fit(taken with { SerialOff = old.Component.SerialNumber }, today)
            ?? (aircraft.Replace(off, Number, taken.Serial, today, words, taken.By) is { } refusal ? refusal with { Field = "fit" } : null);
    }

    /// <summary>Some of what came goes back.</summary>
    public Refusal? GiveBack(TakenOut taken)
    {
        if (receipts.Find(one => one.Id == taken.ReceiptId) is not { } receipt)
            return new("back", "Choose which of it: nothing like that has come.");
        if (Take(receipt, taken, "back", "sent back") is { } refusal)
            return refusal;
        if (taken.Words.Length is 0 or > LongestWords)
            return new("back", $"Say why it goes back, in up to {LongestWords} characters.");
        sentBack = [.. sentBack, taken];
        Changes++;
        return null;
    }

    private Refusal? Take(Receipt receipt, TakenOut taken, string field, string verb) =>
        taken.Quantity <= 0 ? new(field, "How many, above 0.")
            : taken.Quantity > LeftOf(receipt)
            ? new(field, $"{LeftOf(receipt):0.##} of it are here: {taken.Quantity:0.##} can’t be {verb}.")
            : null;

    /// <summary>The old one went to the supplier.</summary>
    public Refusal? SendCore(DateOnly on, DateOnly today)
    {
        if (Core is null)
            return new("core", "No core is owed for it.");
        if (on > today)
            return new("core", "That day is still to come.");
        Core = new(on);
        Changes++;
        return null;
    }

    /// <summary>Says that it needs no trace: a standard part or material that its own marking vouches for.</summary>
    public Refusal? Waive(string? why, Guid by, DateTimeOffset at)
    {
        if (string.IsNullOrWhiteSpace(why) || why.Trim().Length > LongestWords)
            return new("trace", $"Say why it needs no tag, in up to {LongestWords} characters: which standard it is made to.");
        NoTrace = new(why.Trim(), by, at);
        Changes++;
        return null;
    }

    /// <summary>
    /// Why a correction can't name a part that came for its line: none of it was fitted from the list, and what lies here can't be.
    /// </summary>
    public static Refusal? FittedUnseen(Correction done, IEnumerable<OrderedPart> ordered, DateOnly today) =>
        ordered.FirstOrDefault(part => part is { Number.Length: > 0, Fitted.Count: 0, Receipts.Count: > 0 }
                && done.Parts?.Any(used => string.Equals(used.Number, part.Number, StringComparison.OrdinalIgnoreCase)) == true
                && part.receipts.TrueForAll(receipt => part.MayFit(receipt, today) is not null)) is { } wrong
            ? new("parts", $"{wrong.InWords}: {wrong.MayFit(wrong.receipts[^1], today)!.Message}")
            : null;

    /// <summary>How far it is, in words.</summary>
    public string Standing(DateOnly today) => State switch
    {
        PartState.Ordered => $"ordered from {Supplier} {OrderedOn:yyyy-MM-dd}"
            + (ExpectedOn is { } day ? $", expected {day:yyyy-MM-dd}" : "") + (IsLate(today)
                ? $", {today.DayNumber - ExpectedOn!.Value.DayNumber} days late" : ""),
        PartState.Asked => $"asked {Supplier} {AskedOn:yyyy-MM-dd}",
        PartState.Received when Came < Quantity => $"{Came:0.##} of {Quantity:0.##} here",
        PartState.Received => "here, not fitted yet",
        PartState.SentBack => "sent back",
        PartState.Fitted => "fitted",
        _ => "needed",
    };
}
