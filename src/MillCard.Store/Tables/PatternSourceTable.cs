using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace MillCard.Store.Tables;

/// <summary>Pattern sources, as they stand in the database.</summary>
internal sealed class PatternSourceTable : IEntityTypeConfiguration<PatternSourceRow>
{
    public void Configure(EntityTypeBuilder<PatternSourceRow> source)
    {
        source.ToTable("pattern_source", t => t.HasCheckConstraint("pattern_source_id", "id ~ '^[a-z0-9-]{1,48}$'"));
        source.HasKey(s => s.Id);
        source.Property(s => s.Id).HasColumnName("id").ValueGeneratedNever();
        source.Property(s => s.Name).HasColumnName("name");
        source.Property(s => s.About).HasColumnName("about");
        source.Property(s => s.Place).HasColumnName("place");
        source.Property(s => s.Key).HasColumnName("key");
        source.Property(s => s.Number).HasColumnName("number");
        source.Property(s => s.Sha256).HasColumnName("sha256");
        source.Property(s => s.SignedAt).HasColumnName("signed_at");
        source.Property(s => s.TakenAt).HasColumnName("taken_at");
        source.Property(s => s.LookedAt).HasColumnName("looked_at");
        source.Property(s => s.Trouble).HasColumnName("trouble");
    }
}
