using MellowRivet.Core.Inspections;
using MellowRivet.Core.Tools;
using MellowRivet.Core.Worksheets;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace MellowRivet.Store.Mapping;

internal sealed class EditionMapping : IEntityTypeConfiguration<Edition>
{
    public void Configure(EntityTypeBuilder<Edition> edition)
    {
        edition.Property(row => row.Id).ValueGeneratedNever();
        edition.Property(row => row.Changes).IsConcurrencyToken();
        edition.Property(row => row.Worksheet).HasColumnName("Sheet")
            .HasConversion(sheet => StoredShapes.Wrap(sheet.ToJson(), StoredShapes.FirstVersion),
                text => Worksheet.Parse(StoredShapes.Bare(text)));
        edition.HasIndex(row => new { row.Key, row.Version }).IsUnique();
    }
}

internal sealed class ToolMapping : IEntityTypeConfiguration<Tool>
{
    public void Configure(EntityTypeBuilder<Tool> tool)
    {
        tool.Property(row => row.Id).ValueGeneratedNever();
        tool.Ignore(row => row.Title);
    }
}

internal sealed class ShopMapping : IEntityTypeConfiguration<Shop>
{
    public void Configure(EntityTypeBuilder<Shop> shop)
    {
        shop.ToTable("Shop");
        shop.Property(row => row.Id).ValueGeneratedNever();
        shop.Property(row => row.Rules).AsJson();
    }
}

internal sealed class WhereaboutsMapping : IEntityTypeConfiguration<Whereabouts>
{
    public void Configure(EntityTypeBuilder<Whereabouts> where) => where.HasKey(row => new { row.PersonId, row.InspectionId });
}

internal sealed class ChangeCountMapping : IEntityTypeConfiguration<ChangeCount>
{
    public void Configure(EntityTypeBuilder<ChangeCount> count) => count.ToTable("Marks").HasKey(row => row.Of);
}
