@echo off
rem Hush Rise on Windows: the same verbs as ./hushrise. Needs a JDK 25 (JAVA_HOME or on the path) and Maven.
setlocal
set "ROOT=%~dp0"
set "JAVA=java"
if defined JAVA_HOME set "JAVA=%JAVA_HOME%\bin\java"
"%JAVA%" -version 2>&1 | findstr /r "version .2[5-9] version .[3-9][0-9]" >nul || (
  echo Hush Rise needs a JDK 25 or newer: install one, or set JAVA_HOME to it. 1>&2
  exit /b 1
)
set "VERB=%~1"
if "%VERB%"=="" set "VERB=help"
if "%VERB%"=="test" goto test
if "%VERB%"=="demo" goto demo
if "%VERB%"=="open" goto open
if "%VERB%"=="shots" goto shots
if "%VERB%"=="package" goto package
if "%VERB%"=="make" goto cli
if "%VERB%"=="fit" goto cli
if "%VERB%"=="speech" goto cli
if "%VERB%"=="credits" goto cli
if "%VERB%"=="exchange" goto cli
if "%VERB%"=="collect" goto cli
if "%VERB%"=="recover" goto cli
if "%VERB%"=="render" goto cli
if "%VERB%"=="measure" goto cli
if "%VERB%"=="--version" goto cli
if not "%VERB%"=="help" echo Hush Rise does not know '%VERB%' here. 1>&2
echo Usage: hushrise demo ^| open [PROJECT] ^| make ... ^| render ... ^| measure FILE ^| test ^| shots ^| package
if "%VERB%"=="help" exit /b 0
exit /b 2

:build
if exist "%ROOT%%1\target\lib" exit /b 0
echo Building Hush Rise (the first time takes a few minutes) ... 1>&2
pushd "%ROOT%"
call mvn -q -B -Dmaven.test.skip -Dspotless.check.skip -pl %1 -am package
set "CODE=%ERRORLEVEL%"
popd
exit /b %CODE%

:test
pushd "%ROOT%"
call mvn -B -ntp verify
set "CODE=%ERRORLEVEL%"
popd
exit /b %CODE%

:package
pushd "%ROOT%"
call mvn -q -B -Dmaven.test.skip -Dspotless.check.skip -Pbundle -pl bundle -am package dependency:build-classpath -Dmdep.outputFile=target/classpath -Dmdep.includeScope=runtime || (popd & exit /b 1)
set /p BUNDLE_PATH=<bundle\target\classpath
"%JAVA%" -cp "bundle\target\classes;%BUNDLE_PATH%" hushrise.bundle.MakeBundle "%ROOT%."
set "CODE=%ERRORLEVEL%"
popd
exit /b %CODE%

:cli
call :build cli || exit /b 1
"%JAVA%" -XX:+UseSerialGC -Xmx1g --enable-native-access=ALL-UNNAMED --sun-misc-unsafe-memory-access=allow -cp "%ROOT%cli\target\hushrise-cli-0.1.0-SNAPSHOT.jar;%ROOT%cli\target\lib\*" hushrise.cli.HushRise %*
exit /b %ERRORLEVEL%

:demo
call :build app || exit /b 1
"%JAVA%" -XX:+UseSerialGC -Xmx512m --enable-native-access=ALL-UNNAMED,javafx.graphics --sun-misc-unsafe-memory-access=allow --module-path "%ROOT%app\target\javafx" --add-modules javafx.controls -cp "%ROOT%app\target\hushrise-app-0.1.0-SNAPSHOT.jar;%ROOT%app\target\lib\*" -Dhushrise.demo="%ROOT%demo\data\first-ferry.hushrise" hushrise.app.window.Main "%ROOT%demo\data\first-ferry.hushrise" %2 %3
exit /b %ERRORLEVEL%

:open
call :build app || exit /b 1
"%JAVA%" -XX:+UseSerialGC -Xmx512m --enable-native-access=ALL-UNNAMED,javafx.graphics --sun-misc-unsafe-memory-access=allow --module-path "%ROOT%app\target\javafx" --add-modules javafx.controls -cp "%ROOT%app\target\hushrise-app-0.1.0-SNAPSHOT.jar;%ROOT%app\target\lib\*" -Dhushrise.demo="%ROOT%demo\data\first-ferry.hushrise" hushrise.app.window.Main %2
exit /b %ERRORLEVEL%

:shots
call :build app || exit /b 1
"%JAVA%" -Dglass.platform=Headless -Dprism.order=sw --enable-native-access=ALL-UNNAMED,javafx.graphics --sun-misc-unsafe-memory-access=allow --module-path "%ROOT%app\target\javafx" --add-modules javafx.controls -cp "%ROOT%app\target\hushrise-app-0.1.0-SNAPSHOT.jar;%ROOT%app\target\lib\*" -Dhushrise.demo="%ROOT%demo\data\first-ferry.hushrise" hushrise.app.window.Main "%ROOT%demo\data\first-ferry.hushrise" --shots "%ROOT%docs\screenshots"
exit /b %ERRORLEVEL%
