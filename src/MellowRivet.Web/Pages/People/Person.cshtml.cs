using System.Globalization;
using MellowRivet.Core;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Schedule;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.People;

/// <summary>What somebody is called, as it is sent.</summary>
public sealed record NameForm(string? Name, string? Initials);

/// <summary>Their roles, as they are sent.</summary>
public sealed record RolesForm(List<Role>? Roles);

/// <summary>Whose an aircraft is, as it is sent.</summary>
public sealed record OwnsForm(Guid Aircraft, DateOnly? From, DateOnly? Until);

/// <summary>When they work, as it is sent; days off as lines of one day or "from to".</summary>
public sealed record WeekForm(string? Begins, string? Hours, List<DayOfWeek>? Days, string? Off)
{
    public static WeekForm Of(WorkWeek week) => new($"{week.Begins:HH\\:mm}", week.HoursPerDay.ToString("0.##",
        CultureInfo.InvariantCulture), [.. week.Days], string.Join('\n', week.Off.Select(off => off.Until == off.From
            ? $"{off.From:yyyy-MM-dd}"
            : $"{off.From:yyyy-MM-dd} {(off.Until is { } until ? $"{until:yyyy-MM-dd}" : "on")}")));

    /// <summary>The week, or what is wrong with it as typed.</summary>
    public (WorkWeek? Week, Refusal? Refusal) Read()
    {
        if (!TimeOnly.TryParse(Begins, CultureInfo.InvariantCulture, out var begins))
            return (null, new("begins", "When the day begins, as 08:00."));
        if (MeasureText.Value(Hours, Core.Measures.Unit.Hour) is not (> 0 and <= 24 and var hours))
            return (null, new("hours", "Hours of a day as a number: 8."));
        List<DaysOff> off = [];
        foreach (var line in (Off ?? "").Split(['\n', ','], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            var words = line.Split(' ', StringSplitOptions.RemoveEmptyEntries);
            DateOnly? Day(string word) => DateOnly.TryParseExact(word, "yyyy-MM-dd", out var day) ? day : null;
            var (from, until) = (Day(words[0]), words.Length == 1 ? Day(words[0]) : words[1] == "on" ? null : Day(words[1]));
            if (words.Length > 2 || from is null || (until is null && words is not [_, "on"]))
                return (null, new("off", $"“{line}”: a day, or the first and the last, as 2027-03-01 2027-03-12; “on” for no end."));
            off.Add(new(from.Value, until));
        }
        return (new(begins, (decimal)hours, [.. (Days ?? []).OrderBy(WorkWeek.FromMonday)], [.. off.OrderBy(one => one.From)]), null);
    }
}

/// <summary>One person, to whoever manages the shop.</summary>
/// <param name="Person">The person.</param>
/// <param name="SignInName">The name they sign in by; null where they can't.</param>
/// <param name="Fleet">The shop's aircraft, to say which is theirs.</param>
/// <param name="Today">The day.</param>
public sealed record PersonView(Person Person, string? SignInName, IReadOnlyList<FleetRow> Fleet, DateOnly Today) : PageView
{
    public NameForm Named => Typed<NameForm>() ?? new(Person.Name, Person.Initials);
    public IReadOnlyList<Role> Roles => Typed<RolesForm>()?.Roles ?? Person.Roles;
    public CertificateForm? Certificate => Typed<CertificateForm>();
    public OwnsForm? Owns => Typed<OwnsForm>();
    public WeekForm Week => Typed<WeekForm>() ?? WeekForm.Of(Person.Week ?? WorkWeek.Usual);

    public string RegistrationOf(Guid aircraft) => Fleet.FirstOrDefault(row => row.Id == aircraft)?.Registration ?? "an aircraft";
}

/// <summary>One person: what they are called, may do and hold, what is theirs, and whether they can enter.</summary>
[Needs(Right.ManageShop)]
public sealed class PersonModel(RivetDb db, WalkFeed feed, IPasswordHasher<Store.Account> hasher, TimeProvider clock) : ShopPage<PersonView>
{
    [FromRoute]
    public Guid Id { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.ManageShop)]
    public Task<IActionResult> OnPostNameAsync(Guid post, NameForm typed, CancellationToken stop) =>
        ChangeAsync(post, (person, everybody) => person.Describe(typed.Name, typed.Initials, everybody), stop, typed);

    [Needs(Right.ManageShop)]
    public Task<IActionResult> OnPostRolesAsync(Guid post, RolesForm typed, CancellationToken stop) =>
        ChangeAsync(post, (person, everybody) => (typed.Roles ?? []).All(Enum.IsDefined)
            ? person.Take(typed.Roles ?? [], everybody)
            : new("roles", "There is no such role."), stop, typed);

    /// <summary>Puts a certificate on file; a renewed one takes the place of the one that ends.</summary>
    [Needs(Right.ManageShop)]
    public Task<IActionResult> OnPostCertificateAsync(Guid post, CertificateForm typed, CancellationToken stop) =>
        ChangeAsync(post, (person, _) => person.Hold(typed.ToCertificate()), stop, typed);

    [Needs(Right.ManageShop)]
    public Task<IActionResult> OnPostGiveBackAsync(Guid post, CertificateForm typed, CancellationToken stop) =>
        ChangeAsync(post, (person, _) =>
        {
            person.GiveBack(typed.ToCertificate());
            return null;
        }, stop);

    /// <summary>Says when they work, for the plan of the hangar.</summary>
    [Needs(Right.ManageShop)]
    public async Task<IActionResult> OnPostWeekAsync(Guid post, WeekForm typed, CancellationToken stop) =>
        typed.Read() is { Week: { } week }
            ? await ChangeAsync(post, (person, _) => person.Work(week), stop, typed)
            : await AgainAsync(typed.Read().Refusal!, stop, typed);

    /// <summary>Says that an aircraft is theirs, and until when.</summary>
    [Needs(Right.ManageShop)]
    public Task<IActionResult> OnPostOwnsAsync(Guid post, OwnsForm typed, CancellationToken stop) =>
        AfterAsync(db.ChangePersonAsync(Id, post, clock, async (person, _) =>
            await db.PlateAsync(typed.Aircraft, stop) is null ? new("aircraft", "Choose the aircraft.")
                : typed.From is not { Year: >= 1900 and <= 2199 } from ? new("from", "From which day on is it theirs?")
                : person.Own(new(typed.Aircraft, from, typed.Until)), stop), Here, stop, typed);

    /// <summary>Gives them a new password, where they forgot theirs: they are signed out everywhere.</summary>
    [Needs(Right.ManageShop)]
    public Task<IActionResult> OnPostPasswordAsync(Guid post, string? password, CancellationToken stop) =>
        AfterAsync(db.ChangePersonAsync(Id, post, clock, (person, _) =>
            db.SetPasswordAsync(hasher, person, password, User.PersonId() == Id ? User.Session() : null, stop), stop), Here, stop);

    /// <summary>Closes the door to them, at once and everywhere.</summary>
    [Needs(Right.ManageShop)]
    public async Task<IActionResult> OnPostCloseAsync(Guid post, CancellationToken stop)
    {
        var closed = await db.ChangePersonAsync(Id, post, clock,
            (person, everybody) => db.CloseDoorAsync(person, everybody, clock.GetUtcNow(), stop), stop);
        if (closed.Done)
            feed.End(Id);
        return await AfterAsync(closed, Here, stop);
    }

    [Needs(Right.ManageShop)]
    public Task<IActionResult> OnPostLetInAsync(Guid post, CancellationToken stop) => ChangeAsync(post, (person, everybody) =>
    {
        if (TypedPerson.CheckName(person.Name, person.Initials, everybody.Where(other => other.Id != person.Id)) is { } refusal)
            return refusal with { Field = "left" };
        person.ComeBack();
        return null;
    }, stop);

    private string Here => $"/people/{Id}";

    private Task<IActionResult> ChangeAsync(Guid post, Func<Person, IReadOnlyList<Person>, Refusal?> change, CancellationToken stop,
        object? typed = null) => AfterAsync(db.ChangePersonAsync(Id, post, clock, async (person, everybody) =>
        {
            if (change(person, everybody) is { } refusal)
                return refusal;
            await db.TellBrowsersAsync(person, stop);
            return null;
        }, stop), Here, stop, typed);

    protected override async Task<PersonView?> ViewAsync(Refused refused, CancellationToken stop) =>
        (await db.PeopleAsync(stop)).FirstOrDefault(person => person.Id == Id) is { } person
            ? new(person, await db.SignInNameOfAsync(Id, stop), await db.FleetAsync(stop), clock.Today())
            : null;
}
