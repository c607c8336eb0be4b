using System.Collections.Concurrent;
using System.Net;
using System.Net.Sockets;
using Mortar.Browser.Tests;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using Xunit;

[assembly: AssemblyFixture(typeof(Browsers))]

namespace Mortar.Browser.Tests;

/// <summary>The browsers of a run: one is started when none is idle, and given back as new. Starting one costs seconds.</summary>
public sealed class Browsers : IDisposable
{
    private static readonly ConcurrentBag<ChromeDriver> Idle = [];
    private static readonly ConcurrentDictionary<ChromeDriver, DirectoryInfo> Started = [];

    private static int lastPort = 9_514;

    internal static ChromeDriver Take() => Idle.TryTake(out var one) ? one : Start();

    /// <summary>Makes it forget who was here: cookies, what pages stored, a network that was slowed, keys held down.</summary>
    internal static void GiveBack(ChromeDriver driver)
    {
        try
        {
            var at = new Uri(driver.Url);
            driver.ResetInputState();
            driver.Navigate().GoToUrl("about:blank");
            driver.ExecuteCdpCommand("Network.clearBrowserCookies", []);
            driver.ExecuteCdpCommand(
                "Storage.clearDataForOrigin",
                new Dictionary<string, object?>(StringComparer.Ordinal)
                {
                    ["origin"] = at.GetLeftPart(UriPartial.Authority),
                    ["storageTypes"] = "all",
                }
            );
            driver.ExecuteCdpCommand("Network.disable", []);
            _ = driver.Manage().Logs.GetLog(LogType.Browser);
            Idle.Add(driver);
        }
        catch (WebDriverException)
        {
            End(driver); // a browser in a state nobody can leave is no good to the next test
        }
    }

    public void Dispose()
    {
        foreach (var driver in Started.Keys)
        {
            End(driver);
        }
    }

    private static ChromeDriver Start()
    {
        var profile = Directory.CreateTempSubdirectory("mortar-chromium-");
        var options = new ChromeOptions { BinaryLocation = "/usr/bin/chromium" };
        options.AddArguments(
            "--headless=new",
            "--no-sandbox",
            "--disable-gpu",
            "--disable-dev-shm-usage",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync",
            "--no-first-run",
            "--lang=en-GB",
            "--hide-scrollbars",
            "--force-device-scale-factor=1",
            $"--user-data-dir={profile.FullName}"
        );
        options.SetLoggingPreference(LogType.Browser, LogLevel.Warning);
        var service = ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver");
        service.SuppressInitialDiagnosticInformation = true;
        service.Port = Port();
        var driver = new ChromeDriver(service, options, TimeSpan.FromMinutes(2));
        Started[driver] = profile;
        return driver;
    }

    /// <summary>
    /// A port for a driver, below those that the system gives to whoever asks for any (32768 and up on Linux): one of these may
    /// be given to somebody else between being found free and being taken.
    /// </summary>
    private static int Port()
    {
        while (true)
        {
            var port = Interlocked.Increment(ref lastPort);
            try
            {
                using var trial = new TcpListener(IPAddress.Loopback, port);
                trial.Start();
                return port;
            }
            catch (SocketException)
            {
                // somebody has it: the next
            }
        }
    }

    private static void End(ChromeDriver driver)
    {
        if (Started.TryRemove(driver, out var profile))
        {
            driver.Quit();
            driver.Dispose();
            profile.Delete(recursive: true);
        }
    }
}
