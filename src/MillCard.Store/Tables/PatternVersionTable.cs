using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace MillCard.Store.Tables;

/// <summary>Versions of patterns, as they stand in the database.</summary>
internal sealed class PatternVersionTable : IEntityTypeConfiguration<PatternVersionRow>
{
    public void Configure(EntityTypeBuilder<PatternVersionRow> version)
    {
        version.ToTable("pattern_version", t => t.HasCheckConstraint("pattern_version_version", "version > 0"));
        version.HasKey(v => new { v.SourceId, v.PatternId, v.Version });
        version.Property(v => v.SourceId).HasColumnName("source_id");
        version.Property(v => v.PatternId).HasColumnName("pattern_id");
        version.Property(v => v.Version).HasColumnName("version").ValueGeneratedNever();
        version.Property(v => v.Name).HasColumnName("name");
        version.Property(v => v.About).HasColumnName("about");
        version.Property(v => v.Note).HasColumnName("note");
        version.Property(v => v.At).HasColumnName("at");
        version.Property(v => v.Sha256).HasColumnName("sha256");
        version.Property(v => v.Card).HasColumnName("card").HasColumnType("jsonb");
        version.Property(v => v.Summary).HasColumnName("summary").HasColumnType("jsonb");
        version.Property(v => v.Listed).HasColumnName("listed");
        version.HasOne<PatternSourceRow>().WithMany().HasForeignKey(v => v.SourceId).OnDelete(DeleteBehavior.Cascade);
    }
}
