using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Fleet;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace MellowRivet.Store.Mapping;

internal sealed class ShopBulletinMapping : IEntityTypeConfiguration<ShopBulletin>
{
    public void Configure(EntityTypeBuilder<ShopBulletin> bulletin)
    {
        bulletin.Property(row => row.Id).ValueGeneratedNever();
        bulletin.Property(row => row.Changes).IsConcurrencyToken();
        bulletin.Property(row => row.Bulletin)
            .HasConversion(held => StoredShapes.Wrap(BulletinFile.ToJson(held), StoredShapes.FirstVersion),
                text => BulletinFile.Parse(StoredShapes.Bare(text)));
        bulletin.Ignore(row => row.Attachments);
        bulletin.Property<List<Attachment>>("attachments").HasColumnName("Attachments").AsJson();
        bulletin.HasIndex(row => new { row.Family, row.Revision }).IsUnique();
    }
}

internal sealed class BulletinFollowUpMapping : IEntityTypeConfiguration<BulletinFollowUp>
{
    public void Configure(EntityTypeBuilder<BulletinFollowUp> one)
    {
        one.ToTable("BulletinCases");
        one.Property(row => row.Id).ValueGeneratedNever();
        one.Property(row => row.Policy).AsJson();
        one.Property(row => row.Ferry).AsJson();
        one.Ignore(row => row.Done);
        one.Property<List<Complied>>("done").HasColumnName("Done").AsJson();
        one.HasOne<Aircraft>().WithMany().HasForeignKey(row => row.AircraftId);
        one.HasOne<Component>().WithMany().HasForeignKey(row => row.ComponentId);
        one.HasIndex(row => new { row.Family, row.AircraftId, row.ComponentId }).IsUnique();
    }
}

internal sealed class StatedFactMapping : IEntityTypeConfiguration<StatedFact>
{
    public void Configure(EntityTypeBuilder<StatedFact> fact)
    {
        fact.Property(row => row.Id).ValueGeneratedNever();
        fact.Property(row => row.Photo).AsJson();
        fact.HasOne<Aircraft>().WithMany().HasForeignKey(row => row.AircraftId);
        fact.HasOne<Component>().WithMany().HasForeignKey(row => row.ComponentId);
    }
}

internal sealed class FeedStateMapping : IEntityTypeConfiguration<FeedState>
{
    public void Configure(EntityTypeBuilder<FeedState> feed) => feed.HasKey(row => row.Source);
}
