using MellowRivet.Core;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Fleet;

/// <summary>The pages of an aircraft's file, in the order of their tabs.</summary>
public enum FilePage { Due = 1, Job, OpenItems, Bulletins, Parts, Times, Trends, Books, Status, Passport, Plate }

/// <summary>What every page of an aircraft's file shows.</summary>
/// <param name="Aircraft">The aircraft with its parts.</param>
/// <param name="InWork">Its inspection in work; null where none is.</param>
/// <param name="MayKeep">Whoever looks may change the file.</param>
/// <param name="MayRecord">Whoever looks may write down what they read and do.</param>
/// <param name="Today">The day.</param>
public sealed record FileShown(Aircraft Aircraft, Inspection? InWork, bool MayKeep, bool MayRecord, DateOnly Today)
{
    /// <summary>Its survey under way; null where none is, and for whoever isn't the shop's.</summary>
    public Inspection? Survey { get; init; }
}

/// <summary>What a page of an aircraft's file shows; the names are those its markup reads.</summary>
/// <param name="File">What every page of the file shows.</param>
public abstract record FileView(FileShown File) : PageView
{
    /// <summary>Which page it is.</summary>
    public abstract FilePage At { get; }

    public Guid Id => Aircraft.Id;
    public Aircraft Aircraft => File.Aircraft;
    public Inspection? InWork => File.InWork;
    public bool MayKeep => File.MayKeep;
    public bool MayRecord => File.MayRecord;
    public DateOnly Today => File.Today;

    public string HrefOf(FilePage page) => HrefOf(Id, page);

    public static string HrefOf(Guid aircraft, FilePage page) => $"/aircraft/{aircraft}" + page switch
    {
        FilePage.Due => "",
        FilePage.Plate => "/data-plate",
        FilePage.OpenItems => "/open-items",
        _ => $"/{page.ToString().ToLowerInvariant()}",
    };

    public static string TitleOf(FilePage page) => page switch
    {
        FilePage.Due => "Due line",
        FilePage.Plate => "Data plate",
        FilePage.OpenItems => "Open items",
        FilePage.Job => "A job",
        _ => page.ToString(),
    };
}

/// <summary>A page of an aircraft's file: what its frame shows is loaded here.</summary>
[OwnersSee(Through.Aircraft)]
[Needs(Right.Look)]
public abstract class FleetPage<TView>(Desk desk, RivetDb db, TimeProvider clock) : ShopPage<TView> where TView : FileView
{
    [FromRoute]
    public Guid Id { get; set; }

    /// <summary>The page shows tasks of the inspection in work.</summary>
    protected virtual bool ShowsTasks => false;

    protected DateOnly Today => clock.Today();
    protected Desk Desk => desk;
    protected RivetDb Db => db;
    protected TimeProvider Clock => clock;
    protected Guid Me => User.PersonId();

    protected sealed override async Task<TView?> ViewAsync(Refused refused, CancellationToken stop) =>
        await LoadAsync(stop) is { } file ? await ViewAsync(file, refused, stop) : null;

    /// <summary>Makes the view of a file that is loaded; null where there is nothing to show.</summary>
    protected abstract Task<TView?> ViewAsync(FileShown file, Refused refused, CancellationToken stop);

    /// <summary>What every page of the file shows; null where there is no such aircraft.</summary>
    protected async Task<FileShown?> LoadAsync(CancellationToken stop) => await db.AircraftAsync(Id, stop) is { } aircraft
        ? new(aircraft, await db.InWorkAsync(Id, stop, ShowsTasks), User.May(Right.KeepFile), User.May(Right.RecordWork), Today)
        {
            // What a buyer has surveyed is no business of whoever owns it.
            Survey = User.SeesFleet() ? await db.SurveyUnderWayAsync(Id, stop) : null,
        }
        : null;

    /// <summary>Where a page of this file is.</summary>
    protected string HrefOf(FilePage page) => FileView.HrefOf(Id, page);
}
