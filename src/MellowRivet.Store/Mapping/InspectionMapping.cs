using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.EngineLogs;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Oil;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.Passports;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace MellowRivet.Store.Mapping;

internal sealed class InspectionMapping : IEntityTypeConfiguration<Inspection>
{
    public void Configure(EntityTypeBuilder<Inspection> inspection)
    {
        inspection.Property(row => row.Id).ValueGeneratedNever();
        inspection.Property(row => row.Changes).IsConcurrencyToken();
        inspection.Ignore(row => row.OpenAirworthiness).Ignore(row => row.Squawks).Ignore(row => row.LeftOut)
            .Ignore(row => row.Looks).Ignore(row => row.WitnessMarks).Ignore(row => row.Tags).Ignore(row => row.ToolsOut)
            .Ignore(row => row.ForeignObjects).Ignore(row => row.Cures)
            .Ignore(row => row.Worksheets).Ignore(row => row.NotDue).Ignore(row => row.WorksheetHours).Ignore(row => row.Walk)
            .Ignore(row => row.KnownMarks).Ignore(row => row.PlugNotes).Ignore(row => row.SheetChecks).Ignore(row => row.FilterCuts)
            .Ignore(row => row.BenchedMagnetos).Ignore(row => row.OilFills).Ignore(row => row.Omitted).Ignore(row => row.AddedLines)
           .Ignore(row => row.Bulletins)
            .Ignore(row => row.Remembered).Ignore(row => row.SetAside).Ignore(row => row.NotPart).Ignore(row => row.SignersLooks)
            .Ignore(row => row.PricedWork).Ignore(row => row.Choices).Ignore(row => row.FallenAway).Ignore(row => row.Terms)
            .Ignore(row => row.Pins).Ignore(row => row.Apart).Ignore(row => row.StillApart).Ignore(row => row.CameLate)
            .Ignore(row => row.PerhapsTwins);
        inspection.Property(row => row.House).AsJson();
        inspection.Property<List<ZoneLook>>("looks").HasColumnName("Looks").AsJson();
        inspection.Property<List<WitnessMark>>("witnessMarks").HasColumnName("WitnessMarks").AsJson();
        inspection.Property<List<Tag>>("tags").HasColumnName("Tags").AsJson();
        inspection.Property<List<ToolOut>>("toolsOut").HasColumnName("ToolsOut").AsJson();
        inspection.Property<List<ForeignObject>>("foreignObjects").HasColumnName("ForeignObjects").AsJson();
        inspection.Property<List<KnownMark>>("knownMarks").HasColumnName("CarriedMarks").AsJson();
        inspection.Property<List<PlugNote>>("plugNotes").HasColumnName("PlugMarks").AsJson();
        inspection.Property<List<SheetCheck>>("sheetChecks").HasColumnName("BenchChecks").AsJson();
        inspection.Property<List<FilterCut>>("filterCuts").HasColumnName("FilterCuts").AsJson();
        inspection.Property<List<Guid>>("benchedMagnetos").HasColumnName("BenchedMagnetos").AsJson();
        inspection.Property<List<OilFill>>("oilFills").HasColumnName("OilFills").AsJson();
        inspection.Property<List<Cure>>("cures").HasColumnName("Cures").AsJson();
        inspection.Property<List<OmittedFact>>("omitted").HasColumnName("OmittedFacts").AsJson();
        inspection.Property<List<AddedLine>>("addedLines").HasColumnName("AddedLines").AsJson();
        inspection.Property<List<BulletinWork>>("bulletins").HasColumnName("Bulletins").AsJson();
        inspection.Property<List<Remembered>>("remembered").HasColumnName("Remembered").AsJson();
        inspection.Property<List<SetAside>>("setAside").HasColumnName("SetAside").AsJson();
        inspection.Property<List<NotPart>>("notPart").HasColumnName("NotPart").AsJson();
        inspection.Property<List<SignersLook>>("signersLooks").HasColumnName("SignersLooks").AsJson();
        inspection.Property<List<PricedWork>>("pricedWork").HasColumnName("PricedWork").AsJson();
        inspection.Property<List<Choice>>("choices").HasColumnName("Choices").AsJson();
        inspection.Property<List<PinnedJob>>("pins").HasColumnName("Pins").AsJson();
        inspection.Property<List<SaidApart>>("apart").HasColumnName("SaidApart").AsJson();
        inspection.Property<List<CameLate>>("cameLate").HasColumnName("CameLate").AsJson();
        inspection.Property(row => row.Promised).AsJson();
        inspection.Property(row => row.Checklist).AsJson();
        inspection.Ignore(row => row.NotLookedAt).Property(row => row.Survey).AsJson();
        inspection.Ignore(row => row.JobLine).Property(row => row.JobOf).AsJson();
        inspection.Property<List<WorksheetUsed>>("worksheets").HasColumnName("Sheets").AsJson();
        inspection.Property<List<TaskNotDue>>("notDue").HasColumnName("NotDue").AsJson();
        inspection.Property(row => row.Arrival).AsJson();
        inspection.Property<List<Squawk>>("squawks").HasColumnName("Squawks").AsJson();
        inspection.Property<List<Guid>>("leftOut").HasColumnName("LeftOut").AsJson();
        inspection.HasIndex(row => row.WorkOrder);
        inspection.HasIndex(row => new { row.AircraftId, row.State, row.OpenedOn });
        inspection.HasOne<Aircraft>().WithMany().HasForeignKey(row => row.AircraftId);
        inspection.HasMany(row => row.Tasks).WithOne().HasForeignKey(task => task.InspectionId);
        inspection.HasMany(row => row.Discrepancies).WithOne().HasForeignKey(found => found.InspectionId);
        inspection.HasMany(row => row.Readings).WithOne().HasForeignKey(reading => reading.InspectionId);
        inspection.HasMany(row => row.CompressionTests).WithOne().HasForeignKey(test => test.InspectionId);
    }
}

internal sealed class TaskMapping : IEntityTypeConfiguration<InspectionTask>
{
    public void Configure(EntityTypeBuilder<InspectionTask> task)
    {
        task.Property(row => row.WorksheetKey).HasColumnName("SheetKey");
        task.Property(row => row.Id).ValueGeneratedNever();
        task.Property(row => row.Changes).IsConcurrencyToken();
        task.Property(row => row.Measure).AsJson();
        task.Property(row => row.Needs).AsJson();
        task.Property(row => row.Covers).AsJson();
        task.Property(row => row.Sampling).AsJson();
    }
}

internal sealed class DiscrepancyMapping : IEntityTypeConfiguration<Discrepancy>
{
    public void Configure(EntityTypeBuilder<Discrepancy> found)
    {
        found.ToTable("Discrepancy");
        found.HasIndex(row => row.SameAs);
        found.HasIndex(row => row.ComponentId);
        found.Property(row => row.Id).ValueGeneratedNever();
        found.Property(row => row.Changes).IsConcurrencyToken();
        found.HasIndex(row => new { row.InspectionId, row.Number }).IsUnique();
        found.Ignore(row => row.Photos).Ignore(row => row.Sounds).Ignore(row => row.Videos).Ignore(row => row.Notes)
            .Ignore(row => row.Steps).Ignore(row => row.Deferral).Ignore(row => row.Place)
            .Ignore(row => row.Lowered).Ignore(row => row.RestsOn).Ignore(row => row.HasMoved);
        found.Property<List<Photo>>("photos").HasColumnName("Photos").AsJson();
        found.Property<List<Sound>>("sounds").HasColumnName("Sounds").AsJson();
        found.Property<List<Video>>("videos").HasColumnName("Videos").AsJson();
        found.Property<List<Note>>("notes").HasColumnName("Notes").AsJson();
        found.Property<List<Step>>("steps").HasColumnName("Steps").AsJson();
        found.Property<List<DeferralAnswer>>("deferral").HasColumnName("Deferral").AsJson();
        found.Property<List<Lowered>>("lowered").HasColumnName("Lowered").AsJson();
        found.Property(row => row.Origin).AsJson();
        found.Property(row => row.LookedAgain).AsJson();
        found.Property(row => row.Pin).AsJson();
        found.Property(row => row.Correction).AsJson();
        found.Property(row => row.Examination).AsJson();
        found.Property(row => row.Estimate).AsJson();
        found.Property(row => row.Agreed).AsJson();
    }
}

internal sealed class OpenItemMapping : IEntityTypeConfiguration<OpenItem>
{
    public void Configure(EntityTypeBuilder<OpenItem> item)
    {
        item.Property(row => row.Id).ValueGeneratedNever();
        item.Property(row => row.Changes).IsConcurrencyToken();
        item.HasIndex(row => row.AircraftId);
        item.Ignore(row => row.Deferral).Ignore(row => row.Photos).Ignore(row => row.IsOpen).Ignore(row => row.Floor);
        item.Property<List<DeferralAnswer>>("deferral").HasColumnName("Deferral").AsJson();
        item.Property<List<Photo>>("photos").HasColumnName("Photos").AsJson();
        item.Property(row => row.Pin).AsJson();
        item.Property(row => row.Origin).AsJson();
        item.Property(row => row.Estimate).AsJson();
        item.Property(row => row.Agreed).AsJson();
        item.Property(row => row.End).AsJson();
        item.HasOne<Aircraft>().WithMany().HasForeignKey(row => row.AircraftId);
    }
}

internal sealed class OwnerLinkMapping : IEntityTypeConfiguration<OwnerLink>
{
    public void Configure(EntityTypeBuilder<OwnerLink> link)
    {
        link.Property(row => row.Id).ValueGeneratedNever();
        link.HasIndex(row => row.TokenHash).IsUnique();
        link.HasOne<Inspection>().WithMany().HasForeignKey(row => row.InspectionId);
    }
}

internal sealed class ReadingMapping : IEntityTypeConfiguration<Reading>
{
    public void Configure(EntityTypeBuilder<Reading> reading)
    {
        reading.Property(row => row.Id).ValueGeneratedNever();
        reading.Property(row => row.Conditions).AsJson();
        reading.Ignore(row => row.LeakArea).Ignore(row => row.LastAt).Ignore(row => row.Last).Ignore(row => row.SeriesTime);
        reading.HasIndex(row => new { row.AircraftId, row.Kind });
        reading.HasIndex(row => new { row.ComponentId, row.Kind });
        reading.HasOne<Aircraft>().WithMany().HasForeignKey(row => row.AircraftId);
        reading.HasOne<Component>().WithMany().HasForeignKey(row => row.ComponentId);
    }
}

internal sealed class EngineLogMapping : IEntityTypeConfiguration<EngineLog>
{
    public void Configure(EntityTypeBuilder<EngineLog> log)
    {
        log.Property(row => row.Id).ValueGeneratedNever();
        log.Property(row => row.Columns).AsJson();
        log.Ignore(row => row.Flights);
        log.Property<List<LogFlight>>("flights").HasColumnName("Flights").AsJson();
        log.HasOne<Aircraft>().WithMany().HasForeignKey(row => row.AircraftId);
        log.HasOne<Component>().WithMany().HasForeignKey(row => row.EngineId);
    }
}

internal sealed class CompressionTestMapping : IEntityTypeConfiguration<CompressionTest>
{
    public void Configure(EntityTypeBuilder<CompressionTest> test)
    {
        test.Property(row => row.Id).ValueGeneratedNever();
        test.Ignore(row => row.Conditions);
        test.HasOne<Component>().WithMany().HasForeignKey(row => row.EngineId);
    }
}

internal sealed class SignedRecordMapping : IEntityTypeConfiguration<SignedRecord>
{
    public void Configure(EntityTypeBuilder<SignedRecord> record)
    {
        record.HasKey(row => row.Id);
        record.Property(row => row.Id).HasColumnName("Number").ValueGeneratedNever();
        record.HasIndex(row => row.InspectionId);
        record.HasOne<Aircraft>().WithMany().HasForeignKey(row => row.AircraftId);
        record.HasOne<Inspection>().WithMany().HasForeignKey(row => row.InspectionId);
    }
}

internal sealed class EvidenceMapping : IEntityTypeConfiguration<Evidence>
{
    public void Configure(EntityTypeBuilder<Evidence> evidence)
    {
        evidence.HasKey(row => row.Hash);
        evidence.Ignore(row => row.IsWhole);
        evidence.HasIndex(row => row.InspectionId);
    }
}

internal sealed class ShopKeyMapping : IEntityTypeConfiguration<ShopKeyLine>
{
    public void Configure(EntityTypeBuilder<ShopKeyLine> line)
    {
        line.HasKey(row => row.Fingerprint);
        line.Ignore(row => row.IsAnew);
    }
}

internal sealed class PassportMapping : IEntityTypeConfiguration<PassportTaken>
{
    public void Configure(EntityTypeBuilder<PassportTaken> passport)
    {
        passport.Property(row => row.Id).ValueGeneratedNever();
        passport.HasIndex(row => row.AircraftId);
    }
}
