using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Records;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace MellowRivet.Store.Mapping;

internal sealed class InspectionMapping : IEntityTypeConfiguration<Inspection>
{
    public void Configure(EntityTypeBuilder<Inspection> inspection)
    {
        inspection.Property(row => row.Id).ValueGeneratedNever();
        inspection.Property(row => row.Version).IsConcurrencyToken();
        inspection.Ignore(row => row.OpenAirworthiness).Ignore(row => row.Squawks).Ignore(row => row.LeftOut)
            .Ignore(row => row.Looks).Ignore(row => row.WitnessMarks).Ignore(row => row.Tags).Ignore(row => row.ToolsOut).Ignore(row => row.ForeignObjects)
            .Ignore(row => row.Sheets).Ignore(row => row.NotDue).Ignore(row => row.WorksheetHours).Ignore(row => row.Walk);
        inspection.Property(row => row.House).AsJson();
        inspection.Property<List<ZoneLook>>("looks").HasColumnName("Looks").AsJson();
        inspection.Property<List<WitnessMark>>("witnessMarks").HasColumnName("WitnessMarks").AsJson();
        inspection.Property<List<Tag>>("tags").HasColumnName("Tags").AsJson();
        inspection.Property<List<ToolOut>>("toolsOut").HasColumnName("ToolsOut").AsJson();
        inspection.Property<List<ForeignObject>>("foreignObjects").HasColumnName("ForeignObjects").AsJson();
        inspection.Property<List<SheetUsed>>("sheets").HasColumnName("Sheets").AsJson();
        inspection.Property<List<TaskNotDue>>("notDue").HasColumnName("NotDue").AsJson();
        inspection.Property(row => row.Arrival).AsJson();
        inspection.Property<List<Squawk>>("squawks").HasColumnName("Squawks").AsJson();
        inspection.Property<List<Guid>>("leftOut").HasColumnName("LeftOut").AsJson();
        inspection.HasIndex(row => row.WorkOrder).IsUnique();
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
        task.Property(row => row.Id).ValueGeneratedNever();
        task.Property(row => row.Version).IsConcurrencyToken();
        task.Property(row => row.Measure).AsJson();
        task.Property(row => row.Needs).AsJson();
    }
}

internal sealed class DiscrepancyMapping : IEntityTypeConfiguration<Discrepancy>
{
    public void Configure(EntityTypeBuilder<Discrepancy> found)
    {
        found.Property(row => row.Id).ValueGeneratedNever();
        found.Property(row => row.Version).IsConcurrencyToken();
        found.HasIndex(row => new { row.InspectionId, row.Number }).IsUnique();
        found.Ignore(row => row.Photos);
        found.Property<List<Photo>>("photos").HasColumnName("Photos").AsJson();
    }
}

internal sealed class ReadingMapping : IEntityTypeConfiguration<Reading>
{
    public void Configure(EntityTypeBuilder<Reading> reading)
    {
        reading.Property(row => row.Id).ValueGeneratedNever();
        reading.Property(row => row.Conditions).AsJson();
        reading.Ignore(row => row.LeakArea);
        reading.HasIndex(row => new { row.AircraftId, row.Kind });
        reading.HasOne<Aircraft>().WithMany().HasForeignKey(row => row.AircraftId);
        reading.HasOne<Component>().WithMany().HasForeignKey(row => row.ComponentId);
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
        record.HasKey(row => row.Number);
        record.Property(row => row.Number).ValueGeneratedNever();
        record.HasIndex(row => row.InspectionId);
        record.HasOne<Aircraft>().WithMany().HasForeignKey(row => row.AircraftId);
        record.HasOne<Inspection>().WithMany().HasForeignKey(row => row.InspectionId);
    }
}
