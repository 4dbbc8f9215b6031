using MellowRivet.Core;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shelves;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Fleet.Parts;

/// <summary>A part to fit, as it is sent: a new one, or one that lies on the shelf.</summary>
public sealed class FitForm
{
    public Guid Post { get; set; } = Guid.CreateVersion7();

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
}

/// <summary>The parts of an aircraft, what sits on what, and where each was before.</summary>
public sealed class PartsModel(Desk desk, RivetDb db, TimeProvider clock) : FleetPage(desk, db, clock)
{
    public override FileSheet At => FileSheet.Parts;

    [FromQuery(Name = "part")]
    public Guid? PartId { get; set; }

    [FromQuery(Name = "add")]
    public bool Adds { get; set; }

    public Installation? Current { get; private set; }

    /// <summary>Where the chosen part was, on any aircraft, earliest first.</summary>
    public IReadOnlyList<(Installation Stay, string Registration)> Stays { get; private set; } = [];

    /// <summary>Parts that were taken off somewhere and are on nothing now.</summary>
    public IReadOnlyList<Component> InStore { get; private set; } = [];
    public TypeList Types { get; private set; } = TypeList.Empty;
    public IReadOnlyList<FleetRow> Others { get; private set; } = [];
    public FitForm Typed { get; private set; } = new();
    public PartForm TypedPart { get; private set; } = new();
    public StayForm? TypedStay { get; private set; }

    public async Task<IActionResult> OnGetAsync(Guid? on, CancellationToken stop)
    {
        if (!await ShowAsync(stop))
            return NotFound();
        Typed = new() { On = Today, At = $"{Aircraft.TimeInService}", Parent = on };
        TypedPart = new() { On = Today, At = $"{Aircraft.TimeInService}" };
        return Page();
    }

    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostFitAsync(FitForm form, CancellationToken stop)
    {
        Adds = true;
        var id = form.Stored ?? form.Post;
        var written = await Desk.WriteFileAsync(Id, form.Post, async aircraft =>
        {
            if (TypedNumber.ParseHours(form.At) is not { } at)
                return new("at", "The aircraft’s time in service when it was fitted: 4318.6.");
            var own = TypedNumber.ParseHours(form.OwnTime);
            if (own is null && !string.IsNullOrWhiteSpace(form.OwnTime))
                return new("ownTime", "The part’s own hours then; leave it empty where nobody knows.");
            if (form.On > Today)
                return new("on", "That day is still to come.");
            if (form.Position?.Trim().Length > 20)
                return new("position", "A place of up to 20 characters.");
            var (part, wrong) = await PartAsync(form, stop);
            return part is null ? wrong
                : aircraft.Fit(part, form.Position?.Trim() ?? "", form.On, at, own, form.Parent, form.Stored is null
                    ? null
                    : await Db.CameOffWithAsync(part, stop));
        }, stop);
        return await AfterAsync(written, $"{HrefOf(At)}?part={id}", async () =>
        {
            Typed = form;
            return await ShowAsync(stop);
        });
    }

    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnPostTakeOffAsync(PartForm form, CancellationToken stop) => OnPartAsync(form, HrefOf(At), aircraft =>
        Task.FromResult(TypedNumber.ParseHours(form.At) is not { } at
            ? new Refusal("at", "The aircraft’s time in service when it came off: 4318.6.")
            : form.On > Today ? new("on", "That day is still to come.") : aircraft.TakeOff(form.Part, form.On, at, form.Why)), stop);

    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnPostMoveAsync(PartForm form, CancellationToken stop) => OnPartAsync(form, HrefOf(At), async aircraft =>
        form.To is not { } there || await Db.AircraftToChangeAsync(there, stop) is not { } to
            ? new("to", "Choose the aircraft it goes to.")
            : aircraft.MoveTo(form.Part, to, form.Position?.Trim() ?? "", form.On ?? Today, form.Why), stop);

    /// <summary>Puts a part's numbers right.</summary>
    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostPlateAsync(Guid part, FitForm form, CancellationToken stop)
    {
        PartId = part;
        var written = await Desk.WriteFileAsync(Id, form.Post, async aircraft =>
        {
            if (aircraft.Fitting(part)?.Component is not { } fitted)
                return new("name", "It is not on this aircraft any more.");
            if (Component.CheckPlate(fitted.Kind, form.PartNumber, form.Serial, form.Name, form.MadeOn, Today) is { } wrong)
                return wrong;
            var (number, open) = await NumberAsync(fitted.Kind, form, "name", stop);
            if (open is null)
                fitted.Identify(number, form.Serial?.Trim() ?? "", form.Name?.Trim() ?? "", form.MadeOn);
            return open;
        }, stop);
        return await AfterAsync(written, $"{HrefOf(At)}?part={part}", async () =>
        {
            Typed = form;
            return await ShowAsync(stop);
        });
    }

    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnPostOverhauledAsync(PartForm form,
        CancellationToken stop) => OnPartAsync(form, $"{HrefOf(At)}?part={form.Part}", aircraft =>
    {
        Refusal? Overhaul()
        {
            if (aircraft.Fitting(form.Part) is not { } fitted)
                return new("overhaul", "It is not on this aircraft any more.");
            if (form.On is not { } on || on > Today)
                return new("overhaul", "The day it was released from overhaul, not one to come.");
            var own = TypedNumber.ParseHours(form.At);
            if ((own is null && !string.IsNullOrWhiteSpace(form.At)) || own > fitted.TimeInService(aircraft.TimeInService))
                return new("overhaul", "The part’s own hours at the overhaul, no more than it has now; leave it empty where nobody knows.");
            if (string.IsNullOrWhiteSpace(form.Reference) || form.Reference.Trim().Length > 80)
                return new("overhaul", "The release or work order it is papered by, up to 80 characters.");
            fitted.Component.WasOverhauled(new(on, own, form.Reference.Trim()));
            return null;
        }
        return Task.FromResult(Overhaul());
    }, stop);

    /// <summary>The hours of a stay that went on file wrong are put right, and with them those of every reading during it.</summary>
    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostStayAsync(StayForm form, CancellationToken stop)
    {
        PartId = form.Part;
        var written = await Desk.WriteFileAsync(Id, form.Post, async aircraft =>
        {
            var (at, own, off) = (TypedNumber.ParseHours(form.At), TypedNumber.ParseHours(form.OwnTime), TypedNumber.ParseHours(form.Off));
            return at is null ? new Refusal("stayAt", "The aircraft’s time in service when it was fitted: 4318.6.")
                : own is null && !string.IsNullOrWhiteSpace(form.OwnTime)
                ? new("stayOwn", "The part’s own hours then; leave it empty where nobody knows.")
                : off is null && !string.IsNullOrWhiteSpace(form.Off)
                ? new("stayOff", "The aircraft’s time in service when it came off: 4318.6.")
                : await Db.PutStayRightAsync(aircraft, form.Stay, at.Value, own, off, stop);
        }, stop);
        return await AfterAsync(written, $"{HrefOf(At)}?part={form.Part}", async () =>
        {
            TypedStay = form;
            return await ShowAsync(stop);
        });
    }

    private async Task<IActionResult> OnPartAsync(PartForm form, string onwards, Func<Aircraft, Task<Refusal?>> decide,
        CancellationToken stop)
    {
        PartId = form.Part;
        var written = await Desk.WriteFileAsync(Id, form.Post, decide, stop);
        return await AfterAsync(written, onwards, async () =>
        {
            (Typed, TypedPart) = (new() { On = Today, At = form.At }, form);
            return await ShowAsync(stop);
        });
    }

    private async Task<(Component? Part, Refusal? Wrong)> PartAsync(FitForm form, CancellationToken stop)
    {
        if (form.Stored is { } stored)
            return await Db.StoredAsync(stored, stop) is { } there
                ? (there, null)
                : (null, new("stored", "It doesn’t lie in the shop any more."));
        if (Component.CheckPlate(form.Kind, form.PartNumber, form.Serial, form.Name, form.MadeOn, Today) is { } wrong)
            return (null, wrong);
        var isEngine = form.Kind == ComponentKind.Engine;
        if (isEngine && EngineLayout.All.All(layout => layout.Key != form.Layout))
            return (null, new("layout", "An engine needs its layout."));
        var part = new Component(form.Post, form.Kind, "", "")
        {
            LayoutKey = isEngine ? form.Layout : null,
            Ignition = isEngine ? new(IgnitionKind.Magneto, IgnitionKind.Magneto) : null,
        };
        var (number, open) = await NumberAsync(form.Kind, form, "serial", stop);
        if (open is not null)
            return (null, open);
        part.Identify(number, form.Serial?.Trim() ?? "", form.Name?.Trim() ?? "", form.MadeOn);
        if (isEngine)
            part.JudgeCompressionBy(new(CompressionSchool.SixtyOfEighty));
        return (part, null);
    }

    // A model goes on file by the list's own name for it; a part number as it was typed.
    private async Task<(string Number, Refusal? Open)> NumberAsync(ComponentKind kind, FitForm form, string field,
        CancellationToken stop) => kind.TypeOf() is { } type
        ? await Db.NameOfAsync(type, form.PartNumber, TypeAnswer.Of(form.Means, form.Maker, form.MeansAbout), field, stop)
        : (form.PartNumber?.Trim() ?? "", null);

    /// <summary>The question about a part's model; null where a list knows it.</summary>
    public TypeQuestion? QuestionOf(ComponentKind kind, FitForm form) =>
        TypeQuestion.About(Types, kind.TypeOf(), form.PartNumber, "means", "maker", form.Means, form.Maker);

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return false;
        Types = await Db.TypeListAsync(stop);
        Others = [.. (await Db.FleetAsync(stop)).Where(row => row.Id != Id)];
        Current = Aircraft.Installations.Where(stay => stay.ComponentId == PartId).MaxBy(stay => stay.InstalledAt);
        if (Adds)
            InStore = await Db.StoredAsync(stop);
        if (Current is not null)
        {
            var names = Others.Append(new(Id, Aircraft.Registration, Aircraft.Type))
                .ToDictionary(aircraft => aircraft.Id, aircraft => aircraft.Registration);
            Stays = [.. (await Db.StaysOfAsync(Current.ComponentId, stop)).Select(stay => (stay, names[stay.AircraftId]))];
        }
        return true;
    }
}
