using System.Reflection;
using MillCard.Core.Documents;
using MillCard.Store;
using NetArchTest.Rules;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>Holds the arrows between the folders: a room knows only what stands above it in these lists.</summary>
public class RoomTests
{
    private static readonly string[] OfCore =
    [
        "Wording", "Documents", "Geometry", "Findings", "Gcode", "Flavours", "Macros", "Lines", "SettingsReports", "Motion", "Flow", "Heat",
        "Meshes", "Files", "Machines", "Reach", "Clearance", "DryRun", "Routines", "Rules.CardRules", "Rules.DryRunRules", "Rules",
        "Starting", "Slicing.Sections", "Slicing.Paths", "Slicing.Jobs", "Slicing.Walls", "Slicing.Filling",
        "Slicing.Closing", "Slicing.Supporting", "Slicing.Order", "Slicing.Writing", "Slicing", "Making", "Settings",
        "WhatIf", "Matching", "Gauges", "Records", "Packets", "Patterns", "Routines.Carrying", "Routines.Learning", "Routines.Previews",
    ];

    private static readonly string[] OfWeb = ["Work", "Http", "Lines", "Trials", "Paper", "Sources", "Endpoints", "Hosting"];

    [Fact]
    public void A_room_of_the_core_knows_only_rooms_below_it() => Hold(typeof(Card).Assembly, "MillCard.Core", OfCore);

    [Fact]
    public void A_room_of_the_server_knows_only_rooms_below_it() => Hold(typeof(Program).Assembly, "MillCard.Web", OfWeb);

    [Fact]
    public void Store_and_core_know_nobody_above_them()
    {
        Assert.Empty(Breaking(Types.InAssembly(typeof(Card).Assembly).ShouldNot()
            .HaveDependencyOnAny("MillCard.Store", "MillCard.Web", "Microsoft.AspNetCore", "Microsoft.EntityFrameworkCore", "Npgsql")));
        Assert.Empty(Breaking(Types.InAssembly(typeof(MillCardContext).Assembly).ShouldNot()
            .HaveDependencyOnAny("MillCard.Web", "Microsoft.AspNetCore")));
    }

    private static void Hold(Assembly assembly, string root, string[] rooms)
    {
        var all = Types.InAssembly(assembly);
        var homes = assembly.GetTypes().Where(t => t.Namespace is { } home && home.StartsWith(root + '.', StringComparison.Ordinal))
            .ToLookup(t => t.Namespace![(root.Length + 1)..], t => t.FullName!.Split('`')[0]);
        Assert.Equal(rooms.Order(), homes.Select(h => h.Key).Order());
        for (var i = 0; i < rooms.Length - 1; i++)
        {
            var broken = Breaking(all.That()
                .ResideInNamespaceMatching($"^{root}.{rooms[i]}$".Replace(".", @"\.", StringComparison.Ordinal))
                .ShouldNot().HaveDependencyOnAny([.. rooms[(i + 1)..].SelectMany(above => homes[above]).Where(t => !t.Contains('<'))]));
            Assert.True(!broken.Any(), $"These know a room above {rooms[i]}: {string.Join(", ", broken)}");
        }
    }

    private static IEnumerable<string> Breaking(ConditionList rule) => rule.GetResult().FailingTypeNames ?? [];
}
