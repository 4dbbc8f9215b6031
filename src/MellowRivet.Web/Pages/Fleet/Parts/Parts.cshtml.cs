using MellowRivet.Core;
using MellowRivet.Core.Amendments;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shelves;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Fleet.Parts;

/// <summary>A part to fit, as it is sent: a new one, or one that lies on the shelf.</summary>
public sealed class FitForm
{
    public Guid Post { get; set; } = Guid.CreateVersion7();
    public string? Why { get; set; }

    /// <summary>One that lies in the shop; null for a new one.</summary>
    public Guid? Stored { get; set; }
    public ComponentKind Kind { get; set; } = ComponentKind.Other;
    public string? Name { get; set; }
    public string? PartNumber { get; set; }

    /// <summary>The answer where no list knows the model, and the maker of one of its own.</summary>
    public string? Means { get; set; }
    public string? MeansAbout { get; set; }
    public string? Maker { get; set; }
    public string? Serial { get; set; }
    public DateOnly? MadeOn { get; set; }
    public string? Layout { get; set; }
    public Guid? Parent { get; set; }
    public string? Position { get; set; }
    public DateOnly? On { get; set; }
    public string? At { get; set; }
    public string? OwnTime { get; set; }

    public TypedFit ToFit() => new(On, At, OwnTime, Position, Parent);

    public TypedPart ToPart() => new(Kind, Name, Serial, MadeOn, Layout);
}

/// <summary>A part to take off, move or note as overhauled, as it is sent.</summary>
public sealed class PartForm
{
    public Guid Post { get; set; } = Guid.CreateVersion7();
    public Guid Part { get; set; }
    public DateOnly? On { get; set; }
    public string? At { get; set; }
    public string? Why { get; set; }
    public Guid? To { get; set; }
    public string? Position { get; set; }
    public string? Reference { get; set; }
}

/// <summary>The hours of a stay put right, as they are sent.</summary>
public sealed class StayForm
{
    public Guid Post { get; set; } = Guid.CreateVersion7();
    public Guid Part { get; set; }
    public Guid Stay { get; set; }
    public string? At { get; set; }
    public string? OwnTime { get; set; }
    public string? Off { get; set; }
    public string? Why { get; set; }

    public TypedStay ToStay() => new(At, OwnTime, Off);
}

/// <summary>The parts of an aircraft, what sits on what, and where the chosen one was before.</summary>
/// <param name="File">What every page of the file shows.</param>
/// <param name="PartId">The part that is chosen.</param>
/// <param name="Adds">A part is being fitted.</param>
/// <param name="On">The part that a new one would sit on; null for the airframe.</param>
/// <param name="Stays">Where the chosen part was, on any aircraft, earliest first.</param>
/// <param name="InStore">Parts that were taken off somewhere and are on nothing now.</param>
/// <param name="Types">The models that are known.</param>
/// <param name="Others">The shop's other aircraft.</param>
/// <param name="Amended">What was put right about the chosen part, latest first.</param>
public sealed record PartsView(FileShown File, Guid? PartId, bool Adds, Guid? On,
    IReadOnlyList<(Installation Stay, string Registration)> Stays,
    IReadOnlyList<Component> InStore, TypeList Types, IReadOnlyList<FleetRow> Others, IReadOnlyList<Amendment> Amended) : FileView(File)
{
    public override FilePage At => FilePage.Parts;

    public Installation? Current => PartId is { } part ? Aircraft.LastStay(part) : null;

    /// <summary>The form of a part to fit, or of its numbers: as typed where it was refused, else of now.</summary>
    public FitForm Fit => Typed<FitForm>() ?? new() { On = Today, At = Typed<PartForm>()?.At ?? Now, Parent = On };

    /// <summary>The form of what is done with the chosen part: as typed where it was refused, else of now.</summary>
    public PartForm Part => Typed<PartForm>() ?? new() { On = Today, At = Now };

    public StayForm? Stay => Typed<StayForm>();

    private string Now => $"{Aircraft.TimeInService}";

    /// <summary>The question about a part's model; null where a list knows it.</summary>
    public TypeQuestion? QuestionOf(ComponentKind kind, FitForm form) =>
        TypeQuestion.About(Types, kind.TypeOf(), form.PartNumber, "means", "maker", form.Means, form.Maker);
}

/// <summary>The parts of an aircraft: fitted, taken off, moved, put right.</summary>
public sealed class PartsModel(Desk desk, RivetDb db, TimeProvider clock) : FleetPage<PartsView>(desk, db, clock)
{
    private static readonly Refusal Gone = new("name", "It is not on this aircraft any more.");

    private Guid? under;

    [FromQuery(Name = "part")]
    public Guid? PartId { get; set; }

    [FromQuery(Name = "add")]
    public bool Adds { get; set; }

    private string Here => HrefOf(FilePage.Parts);

    public Task<IActionResult> OnGetAsync(Guid? on, CancellationToken stop)
    {
        under = on;
        return ShowAsync(stop);
    }

    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnPostFitAsync(FitForm form, CancellationToken stop)
    {
        Adds = true;
        return AfterAsync(Desk.WriteFileAsync(Id, form.Post, async aircraft =>
        {
            if (form.ToFit().Check(Today) is { } refusal)
                return refusal;
            var (part, wrong) = await PartAsync(form, stop);
            return part is null ? wrong
                : form.ToFit().Fit(aircraft, part, form.Stored is null ? null : await Db.CameOffWithAsync(part, stop), User.PersonId());
        }, stop), $"{Here}?part={form.Stored ?? form.Post}", stop, form);
    }

    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnPostTakeOffAsync(PartForm form, CancellationToken stop) =>
        OnPartAsync(form, Here, aircraft => Task.FromResult(aircraft.TakeOff(form.Part, form.On, form.At, form.Why, Today,
            User.PersonId())), stop);

    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnPostMoveAsync(PartForm form, CancellationToken stop) => OnPartAsync(form, Here, async aircraft =>
        form.To is { } there && await Db.AircraftToChangeAsync(there, stop) is { } to
            ? aircraft.MoveTo(form.Part, to, form.Position?.Trim() ?? "", form.On ?? Today, form.Why, User.PersonId())
            : new("to", "Choose the aircraft it goes to."), stop);

    /// <summary>Puts a part's numbers right.</summary>
    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnPostPlateAsync(Guid part, FitForm form, CancellationToken stop)
    {
        PartId = part;
        return AfterAsync(Desk.WriteFileAsync(Id, form.Post, async aircraft =>
        {
            if (aircraft.Fitting(part)?.Component is not { } fitted)
                return Gone;
            if (Component.CheckPlate(fitted.Kind, form.PartNumber, form.Serial, form.Name, form.MadeOn, Today) is { } wrong)
                return wrong;
            var (number, open) = await NumberAsync(fitted.Kind, form, "name", stop);
            if (open is not null)
                return open;
            // What nobody had said is filled in; what was said otherwise is put right in the open.
            var (was, said) = (fitted.Plate, fitted.SaysOtherwise(number, form.Serial, form.MadeOn));
            if (said && Amendment.Check(form.Why) is { } reason)
                return reason with { Field = "plateWhy" };
            fitted.Identify(number, form.Serial?.Trim() ?? "", form.Name?.Trim() ?? "", form.MadeOn);
            if (said)
                await Desk.KeepAsync(new(form.Post, Id, AmendmentOf.Plate, part, $"plate of {fitted.Kind.InWords()}", was, fitted.Plate,
                    form.Why!, User.Sets(Clock)), aircraft.LastStay(part)?.InstalledOn, stop);
            return null;
        }, stop), $"{Here}?part={part}", stop, form);
    }

    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnPostOverhauledAsync(PartForm form, CancellationToken stop) =>
        OnPartAsync(form, $"{Here}?part={form.Part}", aircraft => Task.FromResult(Overhauled(aircraft, form)), stop);

    private Refusal? Overhauled(Aircraft aircraft, PartForm form)
    {
        if (aircraft.Fitting(form.Part) is not { } fitted)
            return Gone with { Field = "overhaul" };
        var now = fitted.TimeInService(aircraft.TimeInService);
        var (done, refusal) = Overhaul.Read(form.On, form.At, form.Reference, Today, now);
        if (done is not null)
            fitted.Component.WasOverhauled(done);
        return refusal;
    }

    /// <summary>The hours of a stay that went on file wrong are put right, and with them those of every reading during it.</summary>
    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnPostStayAsync(StayForm form, CancellationToken stop)
    {
        PartId = form.Part;
        return AfterAsync(Desk.WriteFileAsync(Id, form.Post, async aircraft =>
        {
            var (at, own, off, wrong) = form.ToStay().Read();
            if ((wrong ?? Amendment.Check(form.Why)) is { } refusal)
                return refusal.Field == "amendWhy" ? refusal with { Field = "stayWhy" } : refusal;
            var stay = aircraft.Installations.FirstOrDefault(one => one.Id == form.Stay);
            var was = stay?.InWords;
            if (await Db.PutStayRightAsync(aircraft, form.Stay, at, own, off, stop) is { } no)
                return no;
            await Desk.KeepAsync(new(form.Post, Id, AmendmentOf.Stay, form.Part, $"hours of {stay!.Component.Title}", was!, stay.InWords,
                form.Why!, User.Sets(Clock)), stay.InstalledOn, stop);
            return null;
        }, stop), $"{Here}?part={form.Part}", stop, form);
    }

    private Task<IActionResult> OnPartAsync(PartForm form, string onwards, Func<Aircraft, Task<Refusal?>> decide, CancellationToken stop)
    {
        PartId = form.Part;
        return AfterAsync(Desk.WriteFileAsync(Id, form.Post, decide, stop), onwards, stop, form);
    }

    private async Task<(Component? Part, Refusal? Wrong)> PartAsync(FitForm form, CancellationToken stop)
    {
        if (form.Stored is { } stored)
            return await Db.StoredAsync(stored, stop) is { } there
                ? (there, null)
                : (null, new("stored", "It doesn’t lie in the shop any more."));
        if (form.ToPart().Check(form.PartNumber, Today) is { } wrong)
            return (null, wrong);
        var (number, open) = await NumberAsync(form.Kind, form, "serial", stop);
        return open is null ? (form.ToPart().Make(form.Post, number), null) : (null, open);
    }

    // A model goes on file by the list's own name for it; a part number as it was typed.
    private async Task<(string Number, Refusal? Open)> NumberAsync(ComponentKind kind, FitForm form, string field,
        CancellationToken stop) =>
        kind.TypeOf() is { } type
            ? await Db.NameOfAsync(type, form.PartNumber, TypeAnswer.Of(form.Means, form.Maker, form.MeansAbout), field, stop)
            : (form.PartNumber?.Trim() ?? "", null);

    protected override async Task<PartsView?> ViewAsync(FileShown file, Refused refused, CancellationToken stop)
    {
        var fleet = await Db.FleetAsync(stop);
        var names = fleet.ToDictionary(row => row.Id, row => row.Registration);
        return new(file, PartId, Adds, under,
            PartId is { } part && file.Aircraft.LastStay(part) is { } current
                ? [.. (await Db.StaysOfAsync(current.ComponentId, stop)).Select(stay => (stay, names[stay.AircraftId]))]
                : [],
            Adds ? await Db.StoredAsync(stop) : [], await Db.TypeListAsync(stop), [.. fleet.Where(row => row.Id != Id)],
            PartId is { } chosen ? await Db.AmendmentsOfAsync(Id, stop, [chosen]) : []);
    }
}
